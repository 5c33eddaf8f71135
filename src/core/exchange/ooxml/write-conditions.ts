import { hasKey } from '../../values/typed-keys';
import { findEntry } from '../../values/entry-of';
import { itemAt } from '../../values/item-at';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { type Hex, type Look, type PlainLook, plainLook } from '../../looks/look';
import { plainTree } from '../../formula/resolve/plain-tree';
import { shiftFormula } from '../../formula/syntax/rewrite-references';
import { printFormula } from '../../formula/syntax/print-formula';
import { writtenFor } from '../../rules/move/follow-layout';
import { BAR_COLORS } from '../../rules/kinds/bar';
import type { When } from '../../rules/kinds/registry';
import type { Position } from '../../rules/compile/positions';
import { operandList, type Operand } from '../../rules/terms';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import { cellAddress, parseAddress, writeArea, type CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { numberText } from '../../values/number-text';
import { lostOf, PLAINLY } from '../workbook/lost-words';
import { dateFormula, PREDICATE_NOTES, predicatesOf } from '../workbook/predicates';
import { reachOf, type Reach } from '../workbook/reach-areas';
import type { RuleFate } from '../export-source';
import { xml, type XmlAttributes } from '../xml/write-xml';
import { toOoxmlFormula } from './formula-text';
import { TO_FAMILY } from './icon-families';
import { PERIODS } from './periods';

/** The surroundings in which conditional formats are written. */
export interface ConditionsInto {
  readonly sheet: Sheet;
  /** Saved looks by id. */
  readonly saved: Readonly<Record<string, Look>>;
  /** The number of a look in the styles part. */
  readonly lookNumber: (look: PlainLook) => number;
}

/** One `cfRule` without its priority, and the cells that it is over. */
interface WrittenRule {
  readonly areas: readonly CellRange[];
  readonly attributes: XmlAttributes;
  readonly content: string;
}

/** A kind in terms of the standard: its type, its content, and notes for the report. */
interface Native {
  readonly attributes: XmlAttributes;
  readonly content?: string;
  readonly note?: string;
  /** True where the kind has no look of its own besides what it carries. */
  readonly isShaded?: boolean;
}

interface ConditionContext {
  readonly rule: RunningRule['rule'];
  readonly sheet: Sheet;
  readonly reach: Reach;
  /** The cell that formulas are written for. */
  readonly cell: string;
  /** A formula of the rule, without `=`, as it reads at that cell. */
  readonly formula: (text: string) => string | undefined;
  readonly operand: (operand: Operand) => string | undefined;
}

/** The fate of a rule, and what is written of it: nothing where its cells are to be formatted plainly. */
export interface SaidRule {
  readonly fate: RuleFate;
  readonly written: readonly WrittenRule[];
}

/** A rule as conditional formats: of its own kind where the standard has it, else by formulas, else as none. */
export function sayRule(running: RunningRule, into: ConditionsInto): SaidRule {
  const { rule } = running;
  const { sheet } = into;
  const reach = reachOf(running, sheet);
  if (!reach) return { fate: { name: rule.name, as: 'nothing', note: 'it reads no cells' }, written: [] };
  const plain = (look: Look | null | undefined): PlainLook => (look ? plainLook(look, into.saved) : {});
  const dxf = (look: PlainLook): XmlAttributes => (Object.keys(look).length ? { dxfId: into.lookNumber(look) } : {});
  const stop: XmlAttributes = rule.settles ? { stopIfTrue: true } : {};
  const blocks = TOGETHER.has(rule.when.kind) ? [reach.read] : blocksOf(reach.read);
  const nativeBlocks = blocks.flatMap((areas) => {
    const native =
      rule.paints === 'cell' ? nativeOf({ rule, sheet, reach, ...formulasOf(running, sheet, areas) }) : undefined;
    return native ? [{ areas, native }] : [];
  });
  const native = nativeBlocks[0]?.native;
  if (native && nativeBlocks.length === blocks.length) {
    const look = native.isShaded ? {} : plain(rule.look);
    const note = [native.note, lostOf(look)].filter(Boolean).join('; ');
    return {
      fate: { name: rule.name, as: 'rule', note },
      written: nativeBlocks.map(({ areas, native: { attributes, content = '' } }) => ({
        areas,
        attributes: { ...attributes, ...dxf(look), ...stop },
        content,
      })),
    };
  }
  return sayByFormulas(running, { reach, blocks, plain, dxf, stop, sheet });
}

interface FormulaParts {
  readonly sheet: Sheet;
  readonly reach: Reach;
  readonly blocks: readonly (readonly CellRange[])[];
  readonly plain: (look: Look | null | undefined) => PlainLook;
  readonly dxf: (look: PlainLook) => XmlAttributes;
  readonly stop: XmlAttributes;
}

/** A rule as conditional formats by formulas, one for each look; as plain formatting where no formula says it. */
function sayByFormulas(running: RunningRule, { sheet, reach, blocks, plain, dxf, stop }: FormulaParts): SaidRule {
  const { rule } = running;
  const isFixed = rule.paints !== 'cell';
  const predicates = (isFixed ? [reach.painted] : blocks).map((areas) => {
    const at = { column: itemAt(areas, 0).left, position: itemAt(areas, 0).top };
    return predicatesOf({ rule, sheet, ...reach, at, isFixed })?.map((said) => ({ ...said, areas }));
  });
  const sayable = predicates.flatMap((each) => (each ? [each] : []));
  const formulas =
    sayable.length < predicates.length
      ? undefined
      : sayable.flatMap((each) =>
          each.map(({ outcome, formula, areas }) => ({
            outcome,
            areas,
            look: plain(running.look(outcome)),
            formula: toOoxmlFormula(parseFormula(formula).tree),
          })),
        );
  if (!formulas || formulas.some(({ formula }) => formula.length > MAX_FORMULA_LENGTH))
    return {
      fate: { name: rule.name, as: 'formatting', note: PLAINLY },
      written: [],
    };
  const outcomes = new Set(formulas.map(({ outcome }) => outcome)).size;
  const lost = [...new Set(formulas.map(({ look }) => lostOf(look)).filter(Boolean))];
  return {
    fate: {
      name: rule.name,
      as: 'formula',
      note: [
        ...(outcomes > 1 ? [`${outcomes} formulas, one for each look`] : []),
        PREDICATE_NOTES[rule.when.kind],
        ...lost,
      ]
        .filter(Boolean)
        .join('; '),
    },
    written: formulas.map(({ look, formula, areas }) => ({
      areas,
      attributes: { type: 'expression', ...dxf(look), ...stop },
      content: xml('formula', {}, escaped(formula)),
    })),
  };
}

/** Longest formula that files of this standard hold, as common practice has it. */
const MAX_FORMULA_LENGTH = 8192;

const escaped = (formula: string): string => formula.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** The `conditionalFormatting` elements of rules in order of precedence, 18.3.1.18. */
export function writeConditions(rules: readonly WrittenRule[]): string {
  return rules
    .map(({ areas, attributes, content }, at) =>
      xml(
        'conditionalFormatting',
        { sqref: areas.map(writeArea).join(' ') },
        xml('cfRule', { ...attributes, priority: at + 1 }, content),
      ),
    )
    .join('');
}

/** Kinds that compare cells with one another: their ranges stay together. */
const TOGETHER: ReadonlySet<When['kind']> = new Set(['average', 'rank', 'repeat', 'scale', 'bar', 'icons']);

/**
 * Ranges with one cell for which a formula of all of them is written. Programs differ in which cell that is, the first
 * range's or that of the box around them all: where the two are not the same cell, each range has a formula of its own.
 */
function blocksOf(areas: readonly CellRange[]): readonly (readonly CellRange[])[] {
  const { left, top } = itemAt(areas, 0);
  return areas.every((area) => area.left >= left && area.top >= top) ? [areas] : areas.map((area) => [area]);
}

function formulasOf(
  { rule }: RunningRule,
  sheet: Sheet,
  areas: readonly CellRange[],
): Pick<ConditionContext, 'cell' | 'formula' | 'operand'> {
  const written = writtenFor(rule, sheet);
  const first = itemAt(areas, 0);
  const formula = (text: string): string | undefined => {
    const tree = plainTree(text, sheet, written.position);
    if (!tree) return undefined;
    return toOoxmlFormula(
      parseFormula(shiftFormula(printFormula(tree), first.left - written.column, first.top - written.position)).tree,
    );
  };
  const operand = (given: Operand): string | undefined => {
    if (typeof given === 'number') return numberText(given);
    if (typeof given === 'boolean') return given ? 'TRUE' : 'FALSE';
    if (typeof given === 'string') return `"${given.replaceAll('"', '""')}"`;
    if ('formula' in given) return formula(given.formula);
    if ('field' in given) return undefined;
    const at = parseAddress(given.cell);
    return at && cellAddress(at.column, at.position).replace(/^([A-Z]+)/, '$$$1$$');
  };
  return { cell: cellAddress(first.left, first.top), formula, operand };
}

type WhenOf<K extends When['kind']> = Extract<When, { kind: K }>;
const nativeOf = (said: ConditionContext): Native | undefined =>
  findEntry<(when: When, said: ConditionContext) => Native | undefined>(NATIVE, said.rule.when.kind)?.(
    said.rule.when,
    said,
  );

const OPERATORS = {
  '<': 'lessThan',
  '<=': 'lessThanOrEqual',
  '=': 'equal',
  '!=': 'notEqual',
  '>=': 'greaterThanOrEqual',
  '>': 'greaterThan',
  between: 'between',
  outside: 'notBetween',
} as const;

function sayCompare(
  { is, to, asShown, magnitude }: WhenOf<'compare'>,
  { operand }: ConditionContext,
): Native | undefined {
  if (asShown || magnitude) return undefined;
  const operands = operandList(to);
  const sides = operands.flatMap((side) => operand(side) ?? []);
  // Dates in ISO form are texts in a file.
  if (sides.length < operands.length || operands.some((side) => typeof side === 'string' && /^\d{4}-/.test(side)))
    return undefined;
  return {
    attributes: { type: 'cellIs', operator: OPERATORS[is] },
    content: sides.map((side) => xml('formula', {}, escaped(side))).join(''),
    note: 'other programs may count text as greater than any number, and a blank as 0',
  };
}

const TEXT_TYPES = {
  contains: 'containsText',
  lacks: 'notContainsText',
  starts: 'beginsWith',
  ends: 'endsWith',
} as const;
const TEXT_OPERATORS = {
  contains: 'containsText',
  lacks: 'notContains',
  starts: 'beginsWith',
  ends: 'endsWith',
} as const;

function sayText({ is, any, case: hasCase, accents }: WhenOf<'text'>, { cell }: ConditionContext): Native | undefined {
  const [word] = any;
  if (!hasKey(TEXT_TYPES, is) || any.length > 1 || typeof word !== 'string' || hasCase || accents) return undefined;
  const sought = `"${word.replaceAll('"', '""')}"`;
  const formulas = {
    contains: `NOT(ISERROR(SEARCH(${sought},${cell})))`,
    lacks: `ISERROR(SEARCH(${sought},${cell}))`,
    starts: `LEFT(${cell},${word.length})=${sought}`,
    ends: `RIGHT(${cell},${word.length})=${sought}`,
  };
  return {
    attributes: { type: TEXT_TYPES[is], operator: TEXT_OPERATORS[is], text: word },
    content: xml('formula', {}, escaped(formulas[is])),
    note: `accents count in other programs${is === 'lacks' ? ', and blanks lack every word' : ''}`,
  };
}

function sayState({ is }: WhenOf<'state'>, { cell }: ConditionContext): Native | undefined {
  const types: Partial<Record<typeof is, readonly [type: string, formula: string]>> = {
    blank: ['containsBlanks', `LEN(TRIM(${cell}))=0`],
    filled: ['notContainsBlanks', `LEN(TRIM(${cell}))>0`],
    error: ['containsErrors', `ISERROR(${cell})`],
  };
  const said = types[is];
  return said && { attributes: { type: said[0] }, content: xml('formula', {}, escaped(said[1])) };
}

function sayDate({ is }: WhenOf<'date'>, { cell }: ConditionContext): Native | undefined {
  const period = Object.entries(PERIODS).find(([, known]) => JSON.stringify(known) === JSON.stringify(is))?.[0];
  const formula = period && dateFormula({ is }, cell);
  if (!formula) return undefined;
  return {
    attributes: { type: 'timePeriod', timePeriod: period },
    content: xml('formula', {}, escaped(toOoxmlFormula(parseFormula(`=${formula}`).tree))),
    ...(/Week/.test(period) ? { note: 'weeks begin there on the day that the other program has' } : {}),
  };
}

function sayAverage(
  { is, deviations = 0, spread = 'sample', per = 'all' }: WhenOf<'average'>,
  { reach }: ConditionContext,
): Native | undefined {
  if (
    typeof per === 'object' ||
    (per === 'field' && reach.columns.length > 1) ||
    spread !== 'sample' ||
    deviations % 1 !== 0
  )
    return undefined;
  return {
    attributes: {
      type: 'aboveAverage',
      aboveAverage: is.endsWith('above') ? undefined : false,
      equalAverage: is.startsWith('at-or') || undefined,
      stdDev: deviations || undefined,
    },
    ...(deviations ? { note: 'the standard does not say which deviation is meant' } : {}),
  };
}

function sayRank({ is, n, percent, per = 'all' }: WhenOf<'rank'>, { reach }: ConditionContext): Native | undefined {
  const rank = n ?? percent ?? 0;
  if (
    typeof per === 'object' ||
    (per === 'field' && reach.columns.length > 1) ||
    rank % 1 !== 0 ||
    rank < 1 ||
    rank > 1000
  )
    return undefined;
  return {
    attributes: {
      type: 'top10',
      rank,
      percent: percent === undefined ? undefined : true,
      bottom: is === 'bottom' || undefined,
    },
  };
}

function sayRepeat({ is, by, case: hasCase, accents }: WhenOf<'repeat'>): Native | undefined {
  if (by || hasCase || accents || (is !== 'repeated' && is !== 'unique')) return undefined;
  return { attributes: { type: is === 'repeated' ? 'duplicateValues' : 'uniqueValues' } };
}

/** A place on a scale, 18.3.1.11. */
function place(
  position: Position | 'auto',
  { operand }: ConditionContext,
  rest: XmlAttributes = {},
): string | undefined {
  if (position === 'least' || position === 'auto') return xml('cfvo', { type: 'min', ...rest });
  if (position === 'greatest') return xml('cfvo', { type: 'max', ...rest });
  if (typeof position === 'number') return xml('cfvo', { type: 'num', val: numberText(position), ...rest });
  if ('percent' in position) return xml('cfvo', { type: 'percent', val: position.percent, ...rest });
  if ('percentile' in position) return xml('cfvo', { type: 'percentile', val: position.percentile, ...rest });
  const formula = operand(position);
  return formula === undefined ? undefined : xml('cfvo', { type: 'formula', val: formula, ...rest });
}

const color = (hex: Hex): string => xml('color', { rgb: `FF${hex.slice(1).toUpperCase()}` });
const isOverAll = (per: unknown, { reach }: ConditionContext): boolean =>
  per === undefined || per === 'all' || (per === 'field' && reach.columns.length === 1);

function sayScale({ stops, space = 'oklab', per }: WhenOf<'scale'>, said: ConditionContext): Native | undefined {
  const places = stops.flatMap(({ at }) => place(at, said) ?? []);
  if (!isOverAll(per, said) || stops.length > 3 || places.length < stops.length) return undefined;
  return {
    attributes: { type: 'colorScale' },
    content: xml('colorScale', {}, ...places, ...stops.map((stop) => color(stop.color))),
    isShaded: true,
    ...(space === 'rgb' ? {} : { note: 'colours between the stops are mixed in another way' }),
  };
}

function sayBar(when: WhenOf<'bar'>, said: ConditionContext): Native | undefined {
  const {
    from = 'auto',
    to = 'auto',
    color: hex = BAR_COLORS.above,
    below,
    side = 'start',
    axis = 'zero',
    style = 'solid',
    showValue,
    per,
  } = when;
  const ends = [from, to === 'auto' ? 'greatest' : to].flatMap((end) => place(end, said) ?? []);
  if (!isOverAll(per, said) || ends.length < 2) return undefined;
  const isLess = from === 'auto' || to === 'auto' || below || side !== 'start' || axis !== 'none' || style !== 'solid';
  return {
    attributes: { type: 'dataBar' },
    content: xml(
      'dataBar',
      { showValue: showValue === false ? false : undefined, minLength: 0, maxLength: 100 },
      ...ends,
      color(hex),
    ),
    isShaded: true,
    ...(isLess ? { note: 'bars have no axis, no other colour below it, and begin at the least value' } : {}),
  };
}

function sayIcons(
  { set, cuts, reverse, showValue, hide, per }: WhenOf<'icons'>,
  said: ConditionContext,
): Native | undefined {
  const places = cuts.flatMap(({ at, edge }) => place(at, said, edge === '>' ? { gte: false } : {}) ?? []);
  if (!isOverAll(per, said) || places.length < cuts.length) return undefined;
  const { family, isSame } = TO_FAMILY[set];
  const notes = [
    !isSame && `the icons are ${family}, the nearest of the standard`,
    hide?.length && 'icons that are left out are drawn',
  ].filter(Boolean);
  return {
    attributes: { type: 'iconSet' },
    content: xml(
      'iconSet',
      { iconSet: family, reverse: reverse || undefined, showValue: showValue === false ? false : undefined },
      xml('cfvo', { type: 'percent', val: 0 }),
      ...places,
    ),
    isShaded: true,
    note: notes.join('; '),
  };
}

function sayFormula({ formula: text }: WhenOf<'formula'>, { formula }: ConditionContext): Native | undefined {
  const said = formula(text);
  return said === undefined || said.length > MAX_FORMULA_LENGTH
    ? undefined
    : { attributes: { type: 'expression' }, content: xml('formula', {}, escaped(said)) };
}

/** One a kind that the standard has, 18.18.12; others are written as formulas, or not at all. */
const NATIVE: { readonly [K in When['kind']]?: (when: WhenOf<K>, said: ConditionContext) => Native | undefined } = {
  compare: sayCompare,
  text: sayText,
  state: sayState,
  date: sayDate,
  average: sayAverage,
  rank: sayRank,
  repeat: sayRepeat,
  formula: sayFormula,
  scale: sayScale,
  bar: sayBar,
  icons: sayIcons,
};
