import { hasKey } from '../../values/typed-keys';
import { findEntry } from '../../values/entry-of';
import { parseFormula } from '../../formula/syntax/parse-formula';
import type { Hex } from '../../looks/look';
import { BAR_COLORS } from '../../rules/kinds/bar';
import type { When } from '../../rules/kinds/registry';
import type { Position } from '../../rules/compile/positions';
import { operandList, type Operand } from '../../rules/terms';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { Sheet } from '../../sheet/sheet';
import { numberText } from '../../values/number-text';
import { dateFormula } from '../workbook/predicates';
import type { Reach } from '../workbook/reach-areas';
import { xml, type XmlAttributes } from '../xml/write-xml';
import { toOoxmlFormula } from './formula-text';
import { TO_FAMILY } from './icon-families';
import { PERIODS } from './periods';

/** A kind in terms of the standard: its type, its content, and notes for the report. */
export interface Native {
  readonly attributes: XmlAttributes;
  readonly content?: string;
  readonly note?: string;
  /** True where the kind has no look of its own besides what it carries. */
  readonly isShaded?: boolean;
}

export interface ConditionContext {
  readonly rule: RunningRule['rule'];
  readonly sheet: Sheet;
  readonly reach: Reach;
  /** The cell that formulas are written for. */
  readonly cell: string;
  /** A formula of the rule, without `=`, as it reads at that cell. */
  readonly formula: (text: string) => string | undefined;
  readonly operand: (operand: Operand) => string | undefined;
}

/** Longest formula that files of this standard hold, as common practice has it. */
export const MAX_FORMULA_LENGTH = 8192;

export const escaped = (formula: string): string =>
  formula.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

type WhenOf<K extends When['kind']> = Extract<When, { kind: K }>;
/** A rule as one condition of the standard; undefined where the standard has none like it. */
export const nativeOf = (context: ConditionContext): Native | undefined =>
  findEntry<(when: When, context: ConditionContext) => Native | undefined>(NATIVE, context.rule.when.kind)?.(
    context.rule.when,
    context,
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

function cellIs({ is, to, asShown, magnitude }: WhenOf<'compare'>, { operand }: ConditionContext): Native | undefined {
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

function textType({ is, any, case: hasCase, accents }: WhenOf<'text'>, { cell }: ConditionContext): Native | undefined {
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

function stateType({ is }: WhenOf<'state'>, { cell }: ConditionContext): Native | undefined {
  const types: Partial<Record<typeof is, readonly [type: string, formula: string]>> = {
    blank: ['containsBlanks', `LEN(TRIM(${cell}))=0`],
    filled: ['notContainsBlanks', `LEN(TRIM(${cell}))>0`],
    error: ['containsErrors', `ISERROR(${cell})`],
  };
  const known = types[is];
  return known && { attributes: { type: known[0] }, content: xml('formula', {}, escaped(known[1])) };
}

function timePeriod({ is }: WhenOf<'date'>, { cell }: ConditionContext): Native | undefined {
  const period = Object.entries(PERIODS).find(([, known]) => JSON.stringify(known) === JSON.stringify(is))?.[0];
  const formula = period && dateFormula({ is }, cell);
  if (!formula) return undefined;
  return {
    attributes: { type: 'timePeriod', timePeriod: period },
    content: xml('formula', {}, escaped(toOoxmlFormula(parseFormula(`=${formula}`).tree))),
    ...(/Week/.test(period) ? { note: 'weeks begin there on the day that the other program has' } : {}),
  };
}

function aboveAverage(
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

function top10({ is, n, percent, per = 'all' }: WhenOf<'rank'>, { reach }: ConditionContext): Native | undefined {
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

function duplicates({ is, by, case: hasCase, accents }: WhenOf<'repeat'>): Native | undefined {
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

function colorScale({ stops, space = 'oklab', per }: WhenOf<'scale'>, context: ConditionContext): Native | undefined {
  const places = stops.flatMap(({ at }) => place(at, context) ?? []);
  if (!isOverAll(per, context) || stops.length > 3 || places.length < stops.length) return undefined;
  return {
    attributes: { type: 'colorScale' },
    content: xml('colorScale', {}, ...places, ...stops.map((stop) => color(stop.color))),
    isShaded: true,
    ...(space === 'rgb' ? {} : { note: 'colours between the stops are mixed in another way' }),
  };
}

function dataBar(when: WhenOf<'bar'>, context: ConditionContext): Native | undefined {
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
  const ends = [from, to === 'auto' ? 'greatest' : to].flatMap((end) => place(end, context) ?? []);
  if (!isOverAll(per, context) || ends.length < 2) return undefined;
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

function iconSet(
  { set, cuts, reverse, showValue, hide, per }: WhenOf<'icons'>,
  context: ConditionContext,
): Native | undefined {
  const places = cuts.flatMap(({ at, edge }) => place(at, context, edge === '>' ? { gte: false } : {}) ?? []);
  if (!isOverAll(per, context) || places.length < cuts.length) return undefined;
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

function expression({ formula: text }: WhenOf<'formula'>, { formula }: ConditionContext): Native | undefined {
  const written = formula(text);
  return written === undefined || written.length > MAX_FORMULA_LENGTH
    ? undefined
    : { attributes: { type: 'expression' }, content: xml('formula', {}, escaped(written)) };
}

/** One a kind that the standard has, 18.18.12; others are written as formulas, or not at all. */
const NATIVE: { readonly [K in When['kind']]?: (when: WhenOf<K>, context: ConditionContext) => Native | undefined } = {
  compare: cellIs,
  text: textType,
  state: stateType,
  date: timePeriod,
  average: aboveAverage,
  rank: top10,
  repeat: duplicates,
  formula: expression,
  scale: colorScale,
  bar: dataBar,
  icons: iconSet,
};
