import { readDate } from '../../values/dates/read-date';
import type { Per } from '../compile/grouping';
import type { RelativeSpan } from '../kinds/date';
import type { When, KindName } from '../kinds/registry';
import type { TextWhen } from '../kinds/text';
import { dayLength, numberLength, textLength } from '../propose/shortness';
import { operandList, type Operand } from '../terms';

/** Bits for each kind: how often people write it, as common practice has it; a limit or a value is the usual rule. */
const KIND_BITS: Record<KindName, number> = {
  compare: 1,
  text: 3,
  state: 3,
  date: 2,
  bands: 1,
  category: 1,
  key: 3,
  average: 5,
  rank: 4,
  repeat: 5,
  change: 5,
  formula: 6,
  scale: 6,
  bar: 6,
  icons: 6,
};

/** Bits for a word that says which test of its kind it is; tests that are not here take the usual number. */
const TEST_BITS: Readonly<Record<string, number>> = {
  between: 5,
  outside: 6,
  '!=': 4,
  differs: 4,
  lacks: 4,
  pattern: 8,
  first: 8,
  again: 5,
  filled: 4,
  valid: 6,
  number: 6,
  text: 6,
  date: 6,
  logical: 6,
};
const USUAL_TEST_BITS = 2;

/** How many there are of what a condition names: the more, the longer it is to say which one. */
export interface Namables {
  readonly fields: number;
  /** Distinct values of the field that is read. */
  readonly values: number;
}

/** Bits for one exact number instead of a limit. */
const EXACT_BITS = 3;
/** Bits for comparing with another field, besides which one it is. */
const OTHER_FIELD_BITS = 4;

/** Numbers of days that are weeks, or nearly months. */
const USUAL_COUNTS = [7, 14, 30, 60, 90];

/**
 * The length of a condition in bits: of its kind, its test, its fields and values (each one of so many), and the
 * numbers and days that it names. It is the prior of proposals, as a negative logarithm.
 */
export function descriptionLength(when: When, { fields, values }: Namables): number {
  const lengths = { field: 1 + Math.log2(Math.max(1, fields)), value: 1 + Math.log2(Math.max(2, values)) };
  return KIND_BITS[when.kind] + partsLength(when, lengths);
}

/** Bits for naming a field, or a value of the field that is read. */
interface NameLengths {
  readonly field: number;
  readonly value: number;
}

function partsLength(when: When, of: NameLengths): number {
  switch (when.kind) {
    case 'compare':
      return (
        testLength(when.is) +
        (when.is === '=' && typeof when.to === 'number' ? EXACT_BITS : 0) +
        sumOf(operandList(when.to), (to) => operandLength(to, of)) +
        (when.magnitude ? 3 : 0)
      );
    case 'text':
      return testLength(when.is) + sumOf(when.any, (word) => wordLength(when.is, String(word), of));
    case 'state':
      return testLength(when.is);
    case 'date':
      return typeof when.is === 'string'
        ? testLength(when.is) + sumOf(operandList(when.to), daysLength)
        : spanLength(when.is);
    case 'average':
      return testLength(when.is) + (when.deviations ? 1 + numberLength(when.deviations) : 0) + perLength(when.per, of);
    case 'rank':
      return testLength(when.is) + numberLength(when.n ?? when.percent ?? 0) + perLength(when.per, of);
    case 'repeat':
      return testLength(when.is) + sumOf(when.by ?? [], () => of.field);
    case 'bands':
      return sumOf(when.cuts, (cut) => operandLength(cut, of)) + (when.edge ? 1 : 0);
    case 'category':
      return sumOf(Object.keys(when.looks ?? {}), () => of.value);
    default:
      return 0;
  }
}

const sumOf = <T>(list: readonly T[], lengthOf: (item: T) => number): number =>
  list.reduce((sum, item) => sum + lengthOf(item), 0);

const testLength = (is: string): number => TEST_BITS[is] ?? USUAL_TEST_BITS;

const perLength = (per: Per | undefined, of: NameLengths): number => (typeof per === 'object' ? 2 + of.field : 0);

function operandLength(operand: Operand, of: NameLengths): number {
  if (typeof operand === 'number') return 1 + numberLength(operand);
  if (typeof operand === 'string') return of.value;
  if (typeof operand === 'boolean') return 1;
  if (!('field' in operand)) return textLength('cell' in operand ? operand.cell : operand.formula);
  const { times = 1, plus = 0 } = operand;
  return OTHER_FIELD_BITS + of.field + scaledLength(times, 1) + scaledLength(plus, 0);
}

const scaledLength = (number: number, usual: number): number => (number === usual ? 0 : 2 + numberLength(number));

/** A whole value is one of those in the field, a word one of a few more; a part of a word is spelled besides. */
function wordLength(is: TextWhen['is'], word: string, of: NameLengths): number {
  if (is === 'equals' || is === 'differs') return of.value;
  return is === 'contains' || is === 'lacks' ? of.value + 1 : of.value + 1 + textLength(word) / 2;
}

/** The length of a day that is given. */
function daysLength(day: Operand): number {
  const serial = typeof day === 'string' ? readDate(day) : undefined;
  return serial === undefined ? textLength(JSON.stringify(day)) : dayLength(serial);
}

function spanLength(span: RelativeSpan): number {
  const count = 'last' in span ? span.last : 'next' in span ? span.next : 1;
  return 3 + (USUAL_COUNTS.includes(count) ? 0 : numberLength(count));
}
