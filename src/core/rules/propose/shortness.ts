import { partsOf, weekdayOf } from '../../values/dates/calendar';

// How long a value is to say, in bits: the shorter of two values that fit the same examples is the likelier one (the
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
