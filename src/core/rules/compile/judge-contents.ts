import type { Column } from '../../sheet/column/column';
import type { Sheet } from '../../sheet/sheet';
import { shownApart } from '../../sheet/shown-cell';
import type { OutcomeColumn } from './outcome-column';

/** Of a content that has not been evaluated yet. */
export const UNKNOWN = -2;

interface Judged {
  readonly into: OutcomeColumn;
  /** The outcome of a slot; -1 for none. */
  readonly judge: (slot: number) => number;
  /** The outcomes by code, so far as they are known; UNKNOWN for others. */
  readonly known?: Int32Array | undefined;
}

/**
 * Evaluates a column whose outcomes depend on the content of each cell alone: once a distinct content, whatever number
 * of cells hold it. Values that no content stands for, and cells that are shown in a way of their own, are evaluated
 * one by one.
 */
export function judgeContents(
  { sheet, column }: { readonly sheet: Sheet; readonly column: number },
  slotCount: number,
  { into, judge, known = new Int32Array(sheet.column(column).contents.count).fill(UNKNOWN) }: Judged,
): void {
  const store = sheet.column(column);
  const apart = shownApart(sheet, column);
  if (!into.codes && !store.hasLoose && !apart)
    return judgeMatches(store, slotCount, { words: into.has.words, judge, known });
  for (let slot = 0; slot < slotCount; slot++) {
    const code = store.valueCodeAt(slot);
    if (code === undefined || apart?.has(slot)) into.put(slot, judge(slot));
    else {
      if (known[code] === UNKNOWN) known[code] = judge(slot);
      into.put(slot, known[code]!);
    }
  }
}

/** The same where there is one outcome, and a content for each value: 32 results to a word. */
function judgeMatches(
  { codes }: Column,
  slotCount: number,
  { words, judge, known }: { words: Uint32Array; judge: (slot: number) => number; known: Int32Array },
): void {
  for (let word = 0, slot = 0; slot < slotCount; word++) {
    let bits = 0;
    for (const end = Math.min(slot + 32, slotCount); slot < end; slot++) {
      const code = codes[slot]!;
      if (known[code] === UNKNOWN) known[code] = judge(slot);
      bits |= Number(known[code]! >= 0) << (slot & 31);
    }
    words[word] = bits;
  }
}
