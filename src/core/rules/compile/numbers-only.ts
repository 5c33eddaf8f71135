import type { Column } from '../../sheet/column';
import type { OutcomeColumn } from './outcome-column';

/** Gives every number of a column the outcome 0, and nothing else any. */
export function numbersOnly({ numbers }: Column, slotCount: number, into: OutcomeColumn): void {
  const { words } = into.has;
  for (let word = 0, slot = 0; slot < slotCount; word++) {
    let bits = 0;
    for (const end = Math.min(slot + 32, slotCount); slot < end; slot++)
      if (numbers[slot] === numbers[slot]) bits |= 1 << (slot & 31);
    words[word] = bits;
  }
  into.codes?.fill(0, 0, slotCount);
}
