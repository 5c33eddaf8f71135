import type Joi from 'joi';
import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import type { Look } from '../../looks/look';
import { lookSchema } from '../../looks/look-schema';
import { GONE, parseRanges } from '../../sheet/address';
import type { FieldId } from '../../sheet/ids';
import { shownAt } from '../../sheet/shown-cell';
import type { CellValue } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { readInput } from '../../values/read-input';
import { shownText } from '../../values/shown-text';
import type { CompileContext } from '../compile/compile-context';
import { amountOf, amountOrPercentSchema, type AmountOrPercent } from '../compile/amount-or-percent';
import { editDistance } from '../compile/edit-distance';
import { missingField } from '../terms';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Inputs, Problem } from '../terms';
import type { Comparison, ConditionKind, Kernel } from './kind';

/** The outcomes of an answer, by number. */
export const KEY_OUTCOMES = ['empty', 'right', 'near', 'wrong'] as const;
export type KeyOutcome = (typeof KEY_OUTCOMES)[number];
/** Words for an answer, by the number of the outcome. */
export const OUTCOME_SAYS = ['not yet answered', 'right', 'nearly right', 'wrong'] as const;
const [EMPTY, RIGHT, NEAR, WRONG] = [0, 1, 2, 3] as const;

/** The looks that an answer check begins with. */
export const FIRST_LOOKS: KeyWhen['looks'] = { right: { look: 'clear' }, wrong: { look: 'alarm' } };

/** The look that answers nearly right begin with: it differs from that of right ones in more than its hue. */
export const NEARLY_LOOK: Look = { look: 'watch', italic: true };

/** Accepted answers shorter than this are right or wrong, never nearly right. */
const SHORTEST_NEAR = 4;

type AcceptedAnswers = readonly (string | number | boolean)[];

/** True for a key that lists its answers itself. */
export const isAnswerList = (expect: KeyWhen['expect']): expect is AcceptedAnswers => Array.isArray(expect);

export interface KeyWhen {
  readonly kind: 'key';
  /**
   * Where the accepted answers are: a field of the same row, cells of the same shape, or a list that holds for every
   * cell.
   */
  readonly expect: { readonly field: FieldId } | { readonly cells: string } | AcceptedAnswers;
  /** Letters that may be off for an answer to be nearly right: 0 (default), 1 or 2. */
  readonly near?: number;
  /** How far a number may be off: a number, or a percentage of the answer such as "1%". */
  readonly tolerance?: AmountOrPercent;
  readonly looks: Readonly<Partial<Record<KeyOutcome, Look | null>>>;
  readonly case?: boolean;
  readonly accents?: boolean;
}

const expectSchema = lazySchema<KeyWhen['expect']>(
  (joi) =>
    joi
      .alternatives()
      .try(
        joi.object({ field: joi.string().required() }),
        joi.object({ cells: joi.string().required().custom(checkRange) }),
        joi.array().items(joi.string().min(1), joi.number().strict(), joi.boolean().strict()).min(1),
      ),
  '{ "field": label }, { "cells": "B2:B9" } or a list of answers',
);

/** An answer against an answer key: empty, right, nearly right or wrong. */
export const key: ConditionKind<KeyWhen> = {
  schema: lazySchema<KeyWhen>((joi) =>
    joi.object<KeyWhen>({
      kind: joi.valid('key').required(),
      expect: expectSchema(joi).required(),
      near: joi.number().strict().integer().min(0).max(2),
      tolerance: amountOrPercentSchema(joi),
      looks: joi
        .object(Object.fromEntries(KEY_OUTCOMES.map((outcome) => [outcome, lookSchema(joi).allow(null)])))
        .required(),
      case: joi.boolean(),
      accents: joi.boolean(),
    }),
  ),
  outcomes: 'several',
  mapReferences(when, to) {
    if ('field' in when.expect) return { ...when, expect: { field: to.field(when.expect.field) } };
    return 'cells' in when.expect ? { ...when, expect: { cells: to.cells(when.expect.cells) } } : when;
  },
  outcomeLooks: ({ looks }) => KEY_OUTCOMES.map((outcome) => looks[outcome] ?? null),
  compile(when, context) {
    const keys = readKeys(when, context);
    return 'code' in keys ? keys : new KeyKernel(when, context, keys);
  },
  sentence(when, words) {
    const whose = isAnswerList(when.expect)
      ? when.expect.map((answer) => `“${answer}”`).join(' or ')
      : 'field' in when.expect
        ? words.field(when.expect.field)
        : when.expect.cells;
    return `is checked against ${whose}`;
  },
  outcomeName: (_, outcome) => OUTCOME_SAYS[outcome] ?? '',
  defaults: ({ commonText }) => ({
    kind: 'key',
    expect: [commonText ?? 'answer'],
    looks: FIRST_LOOKS,
  }),
  thresholds: () => [],
  isByRecord: () => true,
  examples: [
    {
      says: 'a letter off is nearly right, a short answer is right or wrong',
      when: { kind: 'key', expect: ['oxygen', 'O2'], near: 1, looks: {} },
      inputs: ['Oxygen', 'oxigen', 'oyxgen', 'ogygem', 'O3', 'o2', ''],
      outcomes: [RIGHT, NEAR, NEAR, WRONG, WRONG, RIGHT, EMPTY],
    },
    {
      says: 'a number is right within the tolerance, its limit included',
      when: { kind: 'key', expect: [20], tolerance: '5%', looks: {} },
      inputs: ['19', '21', '21.1', '20.0', "'20"],
      outcomes: [RIGHT, RIGHT, WRONG, RIGHT, WRONG],
    },
  ],
};

function checkRange(text: string, helpers: Joi.CustomHelpers): string | Joi.ErrorReport {
  return text === GONE || parseRanges(text)?.length === 1
    ? text
    : helpers.message({ custom: '{{#label}} must be a range such as "B2:B9"' });
}

interface Keys {
  /** The accepted answers for a cell; undefined where the key is blank. */
  at(column: number, slot: number): readonly CellValue[] | undefined;
  readonly inputs: Inputs;
}

function readKeys(when: KeyWhen, context: CompileContext): Keys | Problem {
  const { sheet } = context;
  const { expect } = when;
  const read = (input: string): CellValue => readInput(input, sheet.settings).value;
  if (isAnswerList(expect)) {
    const answers = expect.map((answer) =>
      read(typeof answer === 'boolean' ? String(answer).toUpperCase() : String(answer)),
    );
    const known = answers.filter((answer) => answer.kind !== 'blank');
    return { at: () => (known.length ? known : undefined), inputs: { sameRow: [], wholeColumns: [], cells: [] } };
  }
  const answersIn = (column: number, slot: number): readonly CellValue[] | undefined => {
    const value = sheet.column(column).valueAt(slot);
    const alternatives = value.kind === 'text' && value.text.includes('|') ? value.text.split('|').map(read) : [value];
    const known = alternatives.filter((answer) => answer.kind !== 'blank');
    return known.length ? known : undefined;
  };
  if ('field' in expect) {
    const column = sheet.findColumn(expect.field);
    if (column === undefined) return missingField(expect.field);
    return { at: (_, slot) => answersIn(column, slot), inputs: { sameRow: [column], wholeColumns: [], cells: [] } };
  }
  return readKeyCells(expect.cells, context, answersIn);
}

/** A key in cells of its own: the n-th row read meets its n-th row, the n-th column its n-th column. */
function readKeyCells(
  cells: string,
  context: CompileContext,
  answersIn: (column: number, slot: number) => readonly CellValue[] | undefined,
): Keys | Problem {
  const { sheet } = context;
  const range = parseRanges(cells)?.[0];
  if (!range) return { code: 'key-shape', message: 'the cells of the key have been deleted' };
  const columns = context.cells.map(({ column }) => column);
  const rows = sheet.order.filter((slot) => context.cells.some(({ slots }) => slots.has(slot)));
  const shape = { rows: range.bottom - range.top + 1, columns: range.right - range.left + 1 };
  if (shape.rows !== rows.length || shape.columns !== columns.length) {
    const message = `the key ${cells} has ${shape.rows} rows and ${shape.columns} columns; the cells read have ${rows.length} and ${columns.length}`;
    return { code: 'key-shape', message };
  }
  const rowOf = new Map(rows.map((slot, at) => [slot, at]));
  const wholeColumns = columns.map((_, at) => range.left + at).filter((column) => column < sheet.fields.length);
  return {
    at(column, slot) {
      const keyColumn = range.left + columns.indexOf(column);
      const keySlot = sheet.order[range.top + (rowOf.get(slot) ?? NaN)];
      return keySlot === undefined || keyColumn >= sheet.fields.length ? undefined : answersIn(keyColumn, keySlot);
    },
    inputs: { sameRow: [], wholeColumns, cells: [] },
  };
}

class KeyKernel implements Kernel {
  readonly inputs: Inputs;

  constructor(
    private readonly when: KeyWhen,
    private readonly context: CompileContext,
    private readonly keys: Keys,
  ) {
    this.inputs = keys.inputs;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const answers = this.keys.at(column, slot);
    if (!answers) return -1;
    const value = this.context.sheet.column(column).valueAt(slot);
    if (value.kind === 'blank') return EMPTY;
    if (answers.some((answer) => isRight(value, answer, this.when))) return RIGHT;
    return answers.some((answer) => isNear(value, answer, this.when)) ? NEAR : WRONG;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(outcome: number): Look | null {
    return this.when.looks[itemAt(KEY_OUTCOMES, outcome)] ?? null;
  }

  outcomeTold(outcome: number): KeyOutcome {
    return itemAt(KEY_OUTCOMES, outcome);
  }

  explain(column: number, slot: number): Comparison {
    const answers = this.keys.at(column, slot);
    const outcome = this.outcomeAt(column, slot);
    return {
      left: shownAt(this.context.sheet, column, slot) || 'blank',
      relation: outcome < 0 ? 'has no answer to meet in' : `is ${KEY_OUTCOMES[outcome]} against`,
      right: answers?.map((answer) => shownText(answer, null)).join(' or ') ?? 'a blank key',
    };
  }
}

function isRight(value: CellValue, answer: CellValue, when: KeyWhen): boolean {
  if (value.kind === 'number' && answer.kind === 'number') return isWithin(value.number, answer.number, when.tolerance);
  if (value.kind === 'date' && answer.kind === 'date') return isWithin(value.serial, answer.serial, when.tolerance);
  if (value.kind === 'logical' && answer.kind === 'logical') return value.logical === answer.logical;
  return value.kind === 'text' && answer.kind === 'text' && foldText(value.text, when) === foldText(answer.text, when);
}

/** Limits are included, as decimals say it: the last digits of a double do not decide. */
function isWithin(value: number, answer: number, tolerance: AmountOrPercent = 0): boolean {
  const limit = amountOf(tolerance, answer);
  const off = Math.abs(value - answer);
  return off <= limit || (limit > 0 && Number(off.toPrecision(12)) <= Number(limit.toPrecision(12)));
}

function isNear(value: CellValue, answer: CellValue, when: KeyWhen): boolean {
  const { near = 0 } = when;
  if (near === 0 || value.kind !== 'text' || answer.kind !== 'text') return false;
  const accepted = foldText(answer.text, when);
  return (
    Array.from(accepted).length >= SHORTEST_NEAR && editDistance(foldText(value.text, when), accepted, near) <= near
  );
}
