import { edgeOf } from '../../rules/kinds/bands';
import { calendarSpan } from '../../rules/kinds/date';
import { findEntry } from '../../values/entry-of';
import { itemAt } from '../../values/item-at';
import { isKept } from '../../formula/syntax/formula-tree';
import { plainTree } from '../../formula/resolve/plain-tree';
import { printFormula, referenceText } from '../../formula/syntax/print-formula';
import { rewriteReferences, shiftFormula } from '../../formula/syntax/rewrite-references';
import { writtenFor } from '../../rules/move/follow-layout';
import type { When } from '../../rules/kinds/registry';
import type { Rule } from '../../rules/shape/rule';
import { operandList, type Operand } from '../../rules/terms';
import { columnLetters, parseAddress } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { readDate } from '../../values/dates/read-date';
import { partsOf as dayOf } from '../../values/dates/calendar';
import { numberText } from '../../values/number-text';

/** A rule that is written as a formula for each of the cells it paints. */
export interface PredicateWanted {
  readonly rule: Rule;
  readonly sheet: Sheet;
  /** Columns that the rule reads, from the left, and the first and last row of its reach. */
  readonly columns: readonly number[];
  readonly top: number;
  readonly bottom: number;
  /** The cell that it is written for; its column counts where columns move along. */
  readonly at: { readonly column: number; readonly position: number };
  /** True where it paints other cells of the row than it reads: then columns do not move along. */
  readonly isFixed: boolean;
}

/** The surroundings in which a predicate is written, for one column that is read. */
interface PredicateContext {
  /** The cell that is judged, and all cells that are read in its column and in all columns. */
  readonly cell: string;
  readonly field: string;
  readonly all: readonly string[];
  readonly operand: (operand: Operand) => string | undefined;
  /** A formula of the rule as it reads at the cell. */
  readonly moved: (formula: string) => string | undefined;
}

/**
 * A formula of ours, its references plain, that is true where a rule matches: for each outcome that has a look, with
 * the look's place among the outcomes. Undefined where there is no formula for the kind.
 */
export function predicatesOf(
  wanted: PredicateWanted,
): readonly { readonly outcome: number; readonly formula: string }[] | undefined {
  const { rule, sheet, columns, top, bottom, at, isFixed } = wanted;
  const express = findEntry<(when: When, context: PredicateContext) => readonly (string | undefined)[] | undefined>(
    PREDICATES,
    rule.when.kind,
  );
  if (!express || columns.length === 0) return undefined;
  const mark = isFixed ? '$' : '';
  const rangeOf = (column: number) => `$${columnLetters(column)}$${top + 1}:$${columnLetters(column)}$${bottom + 1}`;
  const written = writtenFor(rule, sheet);
  const byColumn = (isFixed ? columns : [at.column]).map((column) => {
    const moved = (text: string): string | undefined => {
      const tree = plainTree(text, sheet, written.position);
      if (!tree) return undefined;
      const plain = shiftFormula(printFormula(tree), column - written.column, at.position - written.position);
      return isFixed ? fixColumns(plain) : plain;
    };
    const operand = (given: Operand): string | undefined => {
      if (typeof given === 'number') return numberText(given);
      if (typeof given === 'boolean') return given ? 'TRUE()' : 'FALSE()';
      if (typeof given === 'string') return textOperand(given);
      if ('cell' in given) {
        const kept = parseAddress(given.cell);
        return kept && `$${columnLetters(kept.column)}$${kept.position + 1}`;
      }
      if ('formula' in given) {
        const formula = moved(given.formula);
        return formula && `(${formula.slice(1)})`;
      }
      const field = sheet.findColumn(given.field);
      if (field === undefined) return undefined;
      const cell = `$${columnLetters(field)}${at.position + 1}`;
      return `(${cell}${given.times === undefined ? '' : `*${numberText(given.times)}`}${given.plus === undefined ? '' : `+${numberText(given.plus)}`})`;
    };
    const cell = `${mark}${columnLetters(column)}${at.position + 1}`;
    const field = isFixed
      ? rangeOf(column)
      : `${columnLetters(column)}$${top + 1}:${columnLetters(column)}$${bottom + 1}`;
    return express(rule.when, { cell, field, all: columns.map(rangeOf), operand, moved });
  });
  const complete = byColumn.flatMap((each) => (each === undefined ? [] : [each]));
  if (complete.length < byColumn.length) return undefined;
  const outcomes = itemAt(complete, 0).map((_, outcome) => complete.map((each) => each[outcome]));
  return outcomes.flatMap((parts, outcome) => {
    if (parts.some((part) => part === undefined)) return [];
    return { outcome, formula: parts.length === 1 ? `=${parts[0]}` : `=OR(${parts.join(';')})` };
  });
}

const fixColumns = (formula: string): string =>
  rewriteReferences(formula, (node) =>
    referenceText({
      ...node,
      ends: node.ends.map((end) =>
        isKept(end) || !end.column ? end : { ...end, column: { ...end.column, absolute: true } },
      ),
    }),
  );

const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** A text, or a date where it is one in ISO form. */
function textOperand(text: string): string {
  const serial = /^\d{4}-/.test(text) ? readDate(text) : undefined;
  if (serial === undefined) return quoted(text);
  const { year, month, day } = dayOf(Math.floor(serial));
  return `DATE(${year};${month};${day})`;
}

/** Escapes `*`, `?` and `~` for patterns with wildcards. */
const sought = (text: string): string => quoted(text.trim().replace(/[*?~]/g, '~$&'));

type WhenOf<K extends When['kind']> = Extract<When, { kind: K }>;

const isNumber = (cell: string) => `ISNUMBER(${cell})`;
const hasText = (cell: string) => `LEN(TRIM(${cell}))>0`;

function comparePredicates(
  { is, to, magnitude, asShown }: WhenOf<'compare'>,
  { cell, operand }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  if (asShown) return undefined;
  const given = operandList(to);
  const sides = given.flatMap((side) => operand(side) ?? []);
  if (sides.length < given.length) return undefined;
  const isText = given.some((side) => typeof side === 'string') && !sides.some((side) => side.startsWith('DATE('));
  const isLogical = given.some((side) => typeof side === 'boolean');
  if (isText && given.some((side) => typeof side !== 'string')) return undefined;
  const guard = isText ? `ISTEXT(${cell})` : isLogical ? `ISLOGICAL(${cell})` : isNumber(cell);
  const value = magnitude ? `ABS(${cell})` : isText ? `TRIM(${cell})` : cell;
  const [one, other] = magnitude ? sides.map((side) => `ABS(${side})`) : sides;
  const numbers = sides.flatMap((side, at) => (typeof given[at] === 'object' ? [isNumber(side)] : []));
  const test =
    is === 'between'
      ? `${value}>=MIN(${one};${other});${value}<=MAX(${one};${other})`
      : is === 'outside'
        ? `OR(${value}<MIN(${one};${other});${value}>MAX(${one};${other}))`
        : `${value}${is === '!=' ? '<>' : is}${one}`;
  if (isText && (is === 'between' || is === 'outside')) return undefined;
  return [`AND(${[guard, ...(isText ? [hasText(cell)] : numbers), test].join(';')})`];
}

function textPredicates(
  { is, any, case: hasCase }: WhenOf<'text'>,
  { cell, operand }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  if (is === 'pattern' || hasCase) return undefined;
  const words = any.map((word) =>
    typeof word === 'string'
      ? { plain: quoted(word.trim()), wild: sought(word) }
      : { plain: operand(word), wild: operand(word) },
  );
  if (words.some(({ plain }) => plain === undefined)) return undefined;
  const text = `TRIM(${cell})`;
  const test = ({ plain, wild }: (typeof words)[number]): string => {
    switch (is) {
      case 'starts':
        return `LEFT(${text};LEN(${plain}))=${plain}`;
      case 'ends':
        return `RIGHT(${text};LEN(${plain}))=${plain}`;
      case 'equals':
      case 'differs':
        return `${text}=${plain}`;
      default:
        return `ISNUMBER(SEARCH(${wild};${cell}))`;
    }
  };
  const met = words.length === 1 ? test(itemAt(words, 0)) : `OR(${words.map(test).join(';')})`;
  return [is === 'lacks' || is === 'differs' ? `AND(${hasText(cell)};NOT(${met}))` : `AND(${hasText(cell)};${met})`];
}

function statePredicates(
  { is }: WhenOf<'state'>,
  { cell }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  const formulas: Partial<Record<typeof is, string>> = {
    blank: `IF(ISERROR(${cell});FALSE();LEN(TRIM(${cell}))=0)`,
    filled: `IF(ISERROR(${cell});TRUE();LEN(TRIM(${cell}))>0)`,
    error: `ISERROR(${cell})`,
    valid: `IF(ISERROR(${cell});FALSE();LEN(TRIM(${cell}))>0)`,
    text: `AND(ISTEXT(${cell});${hasText(cell)})`,
    logical: `ISLOGICAL(${cell})`,
  };
  const formula = formulas[is];
  return formula === undefined ? undefined : [formula];
}

function datePredicates(
  { is, to }: WhenOf<'date'>,
  { cell, operand }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  const sides = operandList(to).map(operand);
  if (sides.some((side) => side === undefined)) return undefined;
  const formula = dateFormula({ is, sides }, cell);
  return formula === undefined ? undefined : [formula];
}

/**
 * Whether the day of a cell lies in a period, or beside days that are given as formulas; undefined where no formula
 * says it.
 */
export function dateFormula(
  {
    is,
    sides: [one, other] = [],
  }: { readonly is: WhenOf<'date'>['is']; readonly sides?: readonly (string | undefined)[] },
  cell: string,
): string | undefined {
  const day = `INT(${cell})`;
  const test =
    typeof is === 'string'
      ? {
          today: `${day}=TODAY()`,
          yesterday: `${day}=TODAY()-1`,
          tomorrow: `${day}=TODAY()+1`,
          past: `${day}<TODAY()`,
          future: `${day}>TODAY()`,
          before: `${day}<INT(${one})`,
          after: `${day}>INT(${one})`,
          on: `${day}=INT(${one})`,
          between: `${day}>=MIN(INT(${one});INT(${other}));${day}<=MAX(INT(${one});INT(${other}))`,
        }[is]
      : periodPredicate(is, day);
  return test === undefined ? undefined : `AND(${isNumber(cell)};${test})`;
}

/** Days around today. Weeks begin on Monday; quarters have no formula. */
function periodPredicate(is: Exclude<WhenOf<'date'>['is'], string>, day: string): string | undefined {
  if ('unit' in is) {
    const days = is.unit === 'day' ? 1 : is.unit === 'week' ? 7 : undefined;
    if (days === undefined) return undefined;
    return 'last' in is
      ? `${day}<=TODAY();${day}>TODAY()-${is.last * days}`
      : `${day}>=TODAY();${day}<TODAY()+${is.next * days}`;
  }
  const { away: by, unit } = calendarSpan(is);
  const moved = (step: number) => (by === 0 ? '' : by > 0 ? `+${step}` : `-${step}`);
  if (unit === 'day') return `${day}=TODAY()${moved(1)}`;
  if (unit === 'week') return `${day}-WEEKDAY(${day};2)=TODAY()-WEEKDAY(TODAY();2)${moved(7)}`;
  if (unit === 'month') return `YEAR(${day})*12+MONTH(${day})=YEAR(TODAY())*12+MONTH(TODAY())${moved(1)}`;
  return unit === 'year' ? `YEAR(${day})=YEAR(TODAY())${moved(1)}` : undefined;
}

function averagePredicates(
  { is, deviations = 0, spread = 'sample', per = 'all' }: WhenOf<'average'>,
  { cell, field, all }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  if (typeof per === 'object') return undefined;
  const over = per === 'field' ? field : all.join(';');
  const sign = is.endsWith('above') ? '+' : '-';
  const edge = deviations
    ? `AVERAGE(${over})${sign}${numberText(deviations)}*${spread === 'sample' ? 'STDEV' : 'STDEVP'}(${over})`
    : `AVERAGE(${over})`;
  const relation = { above: '>', below: '<', 'at-or-above': '>=', 'at-or-below': '<=' }[is];
  return [`AND(${isNumber(cell)};${cell}${relation}${edge})`];
}

function rankPredicates(
  { is, n, percent, per = 'all' }: WhenOf<'rank'>,
  { cell, field, all }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  if (typeof per === 'object' || (per === 'all' && all.length > 1)) return undefined;
  const over = per === 'field' ? field : itemAt(all, 0);
  const many =
    n === undefined ? `MAX(1;INT(COUNT(${over})*${numberText(percent ?? 0)}/100))` : `MIN(${n};COUNT(${over}))`;
  return [
    is === 'top'
      ? `AND(${isNumber(cell)};${cell}>=LARGE(${over};${many}))`
      : `AND(${isNumber(cell)};${cell}<=SMALL(${over};${many}))`,
  ];
}

function bandsPredicates(
  when: WhenOf<'bands'>,
  { cell, operand }: PredicateContext,
): readonly (string | undefined)[] | undefined {
  if (when.asShown) return undefined;
  const cuts = when.cuts.map(operand);
  if (cuts.some((cut) => cut === undefined)) return undefined;
  const value = when.magnitude ? `ABS(${cell})` : cell;
  const isLower = (cut: number): boolean => edgeOf(when, cut) === 'lower';
  return when.looks.map((look, band) => {
    if (!look) return undefined;
    const tests = [
      band > 0 && `${value}${isLower(band - 1) ? '>=' : '>'}${cuts[band - 1]}`,
      band < cuts.length && `${value}${isLower(band) ? '<' : '<='}${cuts[band]}`,
    ].filter(Boolean);
    return `AND(${[isNumber(cell), ...tests].join(';')})`;
  });
}

/** One a kind that a formula can express; the other kinds have none. */
const PREDICATES: {
  readonly [K in When['kind']]?: (
    when: WhenOf<K>,
    context: PredicateContext,
  ) => readonly (string | undefined)[] | undefined;
} = {
  compare: comparePredicates,
  text: textPredicates,
  state: statePredicates,
  date: datePredicates,
  average: averagePredicates,
  rank: rankPredicates,
  bands: bandsPredicates,
  formula: ({ formula }, { moved }) => {
    const text = moved(formula);
    return text === undefined ? undefined : [text.slice(1)];
  },
};

/** How a formula of a kind differs from the rule, where it does. */
export const PREDICATE_NOTES: Partial<Record<When['kind'], string>> = {
  text: 'accents count in other programs',
  date: 'other programs may take plain numbers for dates',
};
