import type { Sheet } from '../sheet';

/** The rows that have rows further in right beneath them, by position, from the top. */
export function parentRows(sheet: Sheet): number[] {
  const parents = new Set<number>();
  for (const [slot, { level = 0 }] of sheet.rowsWithAbout()) {
    const position = level > 0 ? sheet.positionOf(slot) : -1;
    const above = position > 0 ? sheet.order[position - 1] : undefined;
    if (above !== undefined && (sheet.rowFormat(above).level ?? 0) < level) parents.add(position - 1);
  }
  return [...parents].sort((a, b) => a - b);
}

/** The last of the rows that stand further in beneath a row; the row itself where there are none. */
export function lastBeneath(sheet: Sheet, position: number): number {
  const levelAt = (at: number): number => sheet.rowFormat(sheet.slotAt(at)).level ?? 0;
  const own = levelAt(position);
  let last = position;
  while (last + 1 < sheet.rowCount && levelAt(last + 1) > own) last++;
  return last;
}
