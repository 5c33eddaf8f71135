import type { Column } from '../../sheet/column';
import type { OutcomeColumn } from './outcome-column';

/**
 * Evaluates a column whose outcomes depend on the content of each cell alone: once a distinct content, whatever number
 * of cells hold it. Computed numbers are evaluated one by one.
 */
export function judgeContents(
  store: Column,
  slotCount: number,
  { into, judge }: { into: OutcomeColumn; judge: (slot: number) => number },
): void {
  const known = new Int32Array(store.entries.length).fill(-2);
  for (let slot = 0; slot < slotCount; slot++) {
    const code = store.valueCodeAt(slot);
    if (code === undefined) into.put(slot, judge(slot));
    else {
      if (known[code] === -2) known[code] = judge(slot);
      into.put(slot, known[code]!);
    }
  }
}
