import equal from 'fast-deep-equal';
import { readInput } from '../values/read-input';

/**
 * Whether two inputs hold the same value, however they were typed: 5 and 5.0. Formulas are the same where they read the
 * same.
 */
export function isSameInput(one: string, other: string): boolean {
  if (one === other) return true;
  const [a, b] = [readInput(one), readInput(other)];
  return !a.isFormula && !b.isFormula && equal(a.value, b.value);
}
