import type { Column } from '../../sheet/column/column';
import { setWithin } from './number-bits';
import type { OutcomeColumn } from './outcome-column';

/** Gives every number of a column the outcome 0, and nothing else any. */
export function numbersOnly({ numbers }: Column, slotCount: number, into: OutcomeColumn): void {
  setWithin(numbers, slotCount, { low: -Infinity, high: Infinity, words: into.has.words });
  into.codes?.fill(0, 0, slotCount);
}
