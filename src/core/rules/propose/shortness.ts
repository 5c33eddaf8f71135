import { partsOf, weekdayOf } from '../../values/dates/calendar';
import type { Per } from '../compile/grouping';
import type { Operand } from '../terms';

// How long a part of a condition is to say, in bits: the shorter of two values that fit the same examples is the likelier one (the
// principle of minimum description length: J. Rissanen, Modeling by shortest data description, Automatica 14, 1978).

/** Digits that count: what is beyond comes from arithmetic with binary fractions. */
const MAX_DIGITS = 12;

/**
 * The length of a number: of its digits without the zeros at either end, half of one less where they end with a 5. So
 * 70 is shorter than 65, and 65 shorter than 67.
 */
export function numberLength(number: number): number {
  if (!Number.isFinite(number) || number === 0) return 0;
  const size = Math.abs(number);
  let digits = Math.round(size * 10 ** (MAX_DIGITS - 1 - Math.floor(Math.log10(size))));
  while (digits % 10 === 0) digits /= 10;
  return Math.log2(digits) - (digits % 10 === 5 ? 1 : 0) + (number < 0 ? 1 : 0);
}

/** The length of a text: letters are not equally frequent, which leaves about two bits for each. */
export const textLength = (text: string): number => 2 + 2 * text.length;

/** The length of a day: the first of a year, quarter or month is said in a word, a Monday in less than any other day. */
export function dayLength(serial: number): number {
  const { month, day } = partsOf(serial);
  if (day === 1) return month === 1 ? 3 : month % 3 === 1 ? 5 : 6;
  return weekdayOf(serial) === 0 ? 8 : 10;
}

/** Bits for naming one of the fields, or one of the values of the field that is read: the more there are, the more. */
export interface NameLengths {
  readonly field: number;
  readonly value: number;
}

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

/** The length of the word for a test. */
export const testLength = (is: string): number => TEST_BITS[is] ?? USUAL_TEST_BITS;

/** The length of several parts. */
export const sumOf = <T>(list: readonly T[], lengthOf: (item: T) => number): number =>
  list.reduce((sum, item) => sum + lengthOf(item), 0);

/** Bits for comparing with another field, besides which one it is. */
const OTHER_FIELD_BITS = 4;

/** The length of what something is compared with. */
export function operandLength(operand: Operand, of: NameLengths): number {
  if (typeof operand === 'number') return 1 + numberLength(operand);
  if (typeof operand === 'string') return of.value;
  if (typeof operand === 'boolean') return 1;
  if (!('field' in operand)) return textLength('cell' in operand ? operand.cell : operand.formula);
  const { times = 1, plus = 0 } = operand;
  return OTHER_FIELD_BITS + of.field + scaledLength(times, 1) + scaledLength(plus, 0);
}

const scaledLength = (number: number, usual: number): number => (number === usual ? 0 : 2 + numberLength(number));

/** The length of the groups within which something is judged. */
export const perLength = (per: Per | undefined, of: NameLengths): number =>
  typeof per === 'object' ? 2 + of.field : 0;
