import { inDigits } from '../core/values/counted';
import Joi from 'joi';
import type { ListSchemas } from '../core/sheet/operations/operation-kind';
import { FIRST_FAMILY } from '../core/looks/first-family';
import { lookSchema } from '../core/looks/look-schema';
import type { Look } from '../core/looks/look';
import { lookOfPart, OWN_LOOK } from '../core/sheet/sheet-looks';
import { styleSchema } from '../core/looks/style-schema';
import { formulaSchema } from '../core/rules/compile/operand-schema';
import type { Rule } from '../core/rules/shape/rule';
import { parseAddress } from '../core/sheet/address';
import { ruleSchema, savedLooksOf } from '../core/rules/shape/rule-schema';
import { describesItems, OPERATIONS } from '../core/sheet/operations/registry';
import type { StoredRow } from '../core/sheet/change';
import type { StoredRule } from '../core/rules/shape/stored-rule';
import type { Field } from '../core/sheet/field';
import { ROW_ROLES } from '../core/sheet/row-role';
import { MAX_ALLOWED } from '../core/sheet/allowed-values';
import {
  nameKey,
  OUTCOME_TIMES,
  ruleSetKey,
  snapshotKey,
  type Bands,
  type Dismissal,
  type Filling,
  type Freeze,
  type LookPart,
  type Merge,
  type NamedRange,
  type RuleSetUse,
  type Snapshot,
} from '../core/sheet/sheet-part';
import { LIMITS } from '../core/exchange/limits';
import { idSchema, isContentId } from './content-id';
import { manyItems, type ManyForm } from './many-items';
import type { SentChange } from './recorded-change';

const id = idSchema;
/** Longest text that a cell takes, in UTF-16 code units. */
const MAX_INPUT_LENGTH = LIMITS.cellText;
const TOO_LONG = `A cell takes at most ${inDigits(MAX_INPUT_LENGTH)} characters. What you entered is longer and was not kept.`;
const input = Joi.string().allow('').max(MAX_INPUT_LENGTH).messages({ 'string.max': TOO_LONG });

const key = Joi.string()
  .min(1)
  .max(500)
  .pattern(/^[A-Za-z0-9]+$/);

const knownLooks = new Set(FIRST_FAMILY.map((look) => look.id));
const isLookName = (name: string): boolean => knownLooks.has(name) || name.startsWith(OWN_LOOK);
const rule = ruleSchema(Joi).custom((value: Rule, helpers) => {
  const unknown = savedLooksOf(value).find((name) => !isLookName(name));
  return unknown === undefined
    ? value
    : helpers.message({ custom: `{{#label}} refers to a look that does not exist: ${unknown}` });
});

/** A rule as it is stored. */
export const storedRule = Joi.object<StoredRule>({
  id: id.required(),
  key: key.required(),
  rule: rule.required(),
}).custom((value: StoredRule, helpers) =>
  value.rule.id === value.id ? value : helpers.message({ custom: '{{#label}}.rule.id must be the same as its id' }),
);

/** A field as it is stored. */
export const fieldSchema = Joi.object<Field>({
  id: id.required(),
  key: key.required(),
  widthPx: Joi.number().integer().min(24).max(2000).required(),
  format: Joi.string().max(64).allow(null).required(),
  unit: Joi.string().max(40).allow(null).required(),
  style: styleSchema(Joi),
  hidden: Joi.boolean(),
  allowed: Joi.array().items(Joi.string().max(500)).unique().min(1).max(MAX_ALLOWED),
});

const HEIGHT = { min: 16, max: 1000 } as const;
const LEVEL = { min: 0, max: 8 } as const;

const rowAbout = {
  style: styleSchema(Joi),
  heightPx: Joi.number().integer().min(HEIGHT.min).max(HEIGHT.max),
  level: Joi.number().integer().min(LEVEL.min).max(LEVEL.max),
};

const isText = (value: unknown): boolean => typeof value === 'string' && value.length <= MAX_INPUT_LENGTH;
const isId = (value: unknown): boolean => typeof value === 'string' && isContentId(value);
const isKey = (value: unknown): boolean => typeof value === 'string' && /^[A-Za-z0-9]{1,500}$/.test(value);
const isWithin = (value: unknown, { min, max }: { readonly min: number; readonly max: number }): boolean =>
  value === undefined ||
  value === null ||
  (typeof value === 'number' && Number.isInteger(value) && value >= min && value <= max);
const hasOnly = (item: object, names: readonly string[]): boolean =>
  Object.keys(item).every((name) => names.includes(name));

/**
 * The problem with the inputs of a row, in words that follow its name. Checked by hand: an imported sheet may have a
 * million rows.
 */
function cellsProblem(value: unknown): string | undefined {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return ' must be of type object';
  for (const [field, typed] of Object.entries(value)) {
    if (!isContentId(field)) return ' holds a field that is no id';
    if (typeof typed !== 'string') return `.${field} must be a string`;
    if (typed.length > MAX_INPUT_LENGTH) return TOO_LONG;
  }
  return undefined;
}

const cells = Joi.object()
  .custom((value: unknown, helpers) => {
    const problem = cellsProblem(value);
    return problem === undefined
      ? value
      : helpers.message({ custom: problem === TOO_LONG ? problem : `{{#label}}${problem}` });
  })
  .required();

/** A row as it is stored. */
export const storedRow = Joi.object<StoredRow>({
  id: id.required(),
  key: key.required(),
  role: Joi.valid(...ROW_ROLES).required(),
  cells,
  about: Joi.object({ ...rowAbout, styles: Joi.object().pattern(id, styleSchema(Joi)) }),
});

const name = Joi.string()
  .max(100)
  .pattern(/^\p{L}[\p{L}\p{N}._]*$/u)
  .custom((value: string, helpers) =>
    parseAddress(value) ? helpers.message({ custom: '{{#label}} must not look like the address of a cell' }) : value,
  )
  .messages({
    'string.pattern.base': '{{#label}} must begin with a letter and hold only letters, digits, points and low lines',
  });

/** A look that refers to none: one that referred to itself would be endless. */
const plainLook = lookSchema(Joi).custom((value: Look, helpers) =>
  value.look === undefined
    ? value
    : helpers.message({ custom: '{{#label}} must say what it shows, not refer to another look' }),
);

const checkLookId = (value: string, helpers: Joi.CustomHelpers): string | Joi.ErrorReport => {
  const look = lookOfPart(value);
  return look !== undefined && isLookName(look)
    ? value
    : helpers.message({ custom: '{{#label}} must be “look-” and the id of a look' });
};

/** A saved look. */
export const lookPartSchema = Joi.object<LookPart>({
  id: id.required().custom(checkLookId),
  kind: Joi.valid('look'),
  name: Joi.string().min(1).max(80).required(),
  look: plainLook.required(),
  dark: plainLook,
});

/** A part as it is stored. */
export const partSchema = Joi.object().when('.kind', {
  switch: [
    {
      is: 'name',
      then: Joi.object<NamedRange>({
        id: Joi.string().required(),
        kind: Joi.string(),
        name: name.required(),
        refersTo: formulaSchema(Joi).required(),
      }).custom((value: NamedRange, helpers) =>
        value.id === nameKey(value.name)
          ? value
          : helpers.message({ custom: '{{#label}}.id must be its name in lower case' }),
      ),
    },
    {
      is: 'merge',
      then: Joi.object<Merge>({
        id: id.required(),
        kind: Joi.string(),
        top: id.required(),
        bottom: id.required(),
        left: id.required(),
        right: id.required(),
      }),
    },
    {
      is: 'freeze',
      then: Joi.object<Freeze>({ id: Joi.valid('freeze').required(), kind: Joi.string(), through: id.required() }),
    },
    { is: 'look', then: lookPartSchema },
    {
      is: 'rule-set',
      then: Joi.object<RuleSetUse>({
        id: Joi.string().max(100).required(),
        kind: Joi.string(),
        set: id.required(),
        name: Joi.string().min(1).max(80).required(),
        version: Joi.number().strict().integer().min(1).required(),
        rules: Joi.object().pattern(Joi.string().max(100), id).required(),
      }).custom((value: RuleSetUse, helpers) =>
        value.id === ruleSetKey(value.set)
          ? value
          : helpers.message({ custom: '{{#label}}.id must be “rule-set ” and the id of the set' }),
      ),
    },
    {
      is: 'dismissal',
      then: Joi.object<Dismissal>({
        id: id.required(),
        kind: Joi.string(),
        reason: Joi.string().allow('').max(500).required(),
      }),
    },
    {
      is: 'snapshot',
      then: Joi.object<Snapshot>({
        id: Joi.string().max(100).required(),
        kind: Joi.string(),
        name: Joi.string().trim().min(1).max(80).required(),
        sequence: Joi.number().strict().integer().min(0).required(),
      }).custom((value: Snapshot, helpers) =>
        value.id === snapshotKey(value.name)
          ? value
          : helpers.message({ custom: '{{#label}}.id must be “snapshot ” and its name in lower case' }),
      ),
    },
    {
      is: 'filling',
      then: Joi.object<Filling>({
        id: Joi.valid('filling').required(),
        kind: Joi.string(),
        open: Joi.array().items(id).unique().max(1000).required(),
        openCells: Joi.array()
          .items(Joi.object({ row: id.required(), field: id.required() }))
          .max(5000)
          .required(),
        kept: Joi.array().items(id).unique().max(1000).required(),
        outcomes: Joi.valid(...OUTCOME_TIMES).required(),
        showsOthers: Joi.boolean().required(),
      }),
    },
    { is: 'bands', then: Joi.object<Bands>({ id: Joi.valid('bands').required(), kind: Joi.string() }) },
  ],
  otherwise: Joi.object({
    kind: Joi.valid(
      'name',
      'merge',
      'freeze',
      'bands',
      'dismissal',
      'look',
      'snapshot',
      'filling',
      'rule-set',
    ).required(),
  }).unknown(),
});

/** The items of lists that may be long, each with its plain form. */
export const FORMS = {
  setCells: {
    item: Joi.object({ row: id.required(), field: id.required(), input: input.required(), was: input }),
    isPlain: (cell) =>
      hasOnly(cell, ['row', 'field', 'input', 'was']) &&
      isId(cell.row) &&
      isId(cell.field) &&
      isText(cell.input) &&
      (cell.was === undefined || isText(cell.was)),
  },
  insertRows: {
    item: storedRow,
    isPlain: (row, isAccepted) =>
      hasOnly(row, ['id', 'key', 'role', 'cells', 'about']) &&
      isId(row.id) &&
      isKey(row.key) &&
      ROW_ROLES.some((role) => role === row.role) &&
      cellsProblem(row.cells) === undefined &&
      isAccepted(row.about),
    repeated: 'about',
  },
  changeRows: {
    item: Joi.object({
      id: id.required(),
      key,
      role: Joi.valid(...ROW_ROLES),
      style: styleSchema(Joi).allow(null),
      heightPx: rowAbout.heightPx.allow(null),
      level: rowAbout.level.allow(null),
    }),
    isPlain: (row, isAccepted) =>
      hasOnly(row, ['id', 'key', 'role', 'style', 'heightPx', 'level']) &&
      isId(row.id) &&
      (row.key === undefined || isKey(row.key)) &&
      (row.role === undefined || ROW_ROLES.some((role) => role === row.role)) &&
      isAccepted(row.style) &&
      isWithin(row.heightPx, HEIGHT) &&
      isWithin(row.level, LEVEL),
    repeated: 'style',
  },
  setStyles: {
    item: Joi.object({ row: id.required(), field: id.required(), style: styleSchema(Joi).allow(null).required() }),
    isPlain: (cell, isAccepted) =>
      hasOnly(cell, ['row', 'field', 'style']) &&
      isId(cell.row) &&
      isId(cell.field) &&
      cell.style !== undefined &&
      isAccepted(cell.style),
    repeated: 'style',
  },
  ids: { item: id, isPlain: isId },
} as const satisfies Record<string, ManyForm>;

const LISTS: ListSchemas = {
  inputs: manyItems(FORMS.setCells).required(),
  styles: manyItems(FORMS.setStyles).required(),
  rows: manyItems(FORMS.insertRows).unique('id').required(),
  rowChanges: manyItems(FORMS.changeRows).required(),
  fields: Joi.array().items(fieldSchema).unique('id').min(1).max(LIMITS.fields).required(),
  parts: Joi.array().items(partSchema).unique('id').min(1).max(LIMITS.sheetParts).required(),
  partIds: Joi.array().items(Joi.string().min(1).max(100)).min(1).max(LIMITS.sheetParts).required(),
  rules: Joi.array().items(storedRule).min(1).max(LIMITS.rules).required(),
  ids: manyItems(FORMS.ids).required(),
  joi: Joi,
};

/** One step of a change. */
export const operationSchema = Joi.object().when('.kind', {
  switch: Object.entries(OPERATIONS).map(([kind, { schema }]) => ({
    is: kind,
    then: Joi.object({ kind: Joi.string(), ...schema(LISTS) }),
  })),
  otherwise: Joi.object({ kind: Joi.valid(...Object.keys(OPERATIONS)).required() }).unknown(),
});

/**
 * Operations of one change, and characters of all rules, fields and parts in it: each of these is checked thoroughly,
 * which takes its time.
 */
const MAX_OPERATIONS = 1000;
const MAX_DESCRIBED = 1_000_000;

function tooMuch(operations: readonly unknown[]): string | undefined {
  if (operations.length > MAX_OPERATIONS)
    return `has ${operations.length} operations; a change has at most ${MAX_OPERATIONS}`;
  const described = operations.filter((operation) =>
    describesItems((operation as { kind?: string } | null)?.kind ?? ''),
  );
  const length = described.length ? JSON.stringify(described).length : 0;
  return length > MAX_DESCRIBED
    ? `holds rules, fields and parts of ${length} characters together; a change holds at most ${MAX_DESCRIBED}`
    : undefined;
}

/** Cells of an entry that is known by hand to be right. */
const FEW_CELLS = 100;

/** Operations of a change: entries of a few cells, which are most of them, have a plain form. */
export const OPERATION_FORM = {
  item: operationSchema,
  isPlain: (operation) =>
    operation.kind === 'set-cells' &&
    hasOnly(operation, ['kind', 'cells']) &&
    Array.isArray(operation.cells) &&
    operation.cells.length > 0 &&
    operation.cells.length <= FEW_CELLS &&
    operation.cells.every(
      (cell: unknown) =>
        typeof cell === 'object' && cell !== null && FORMS.setCells.isPlain(cell as Readonly<Record<string, unknown>>),
    ),
  tooMuch,
} as const satisfies ManyForm;

/** A change as it arrives from outside. */
export const changeSchema = Joi.object<SentChange>({
  id: id.required(),
  operations: manyItems(OPERATION_FORM).required(),
  seen: Joi.number().strict().integer().min(0),
}).label('change');

/** Changes in one request at most. */
const MAX_CHANGES = 100;

/** What a page sends: a change, or a list of several that it made one after another. */
export const sentChanges = Joi.alternatives<SentChange | readonly SentChange[]>().conditional(Joi.array(), {
  then: Joi.array().items(changeSchema).min(1).max(MAX_CHANGES).label('changes'),
  otherwise: changeSchema,
});
