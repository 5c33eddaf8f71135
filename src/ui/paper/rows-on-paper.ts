import type { SheetFrame } from '../../protocol/sheet-view';

/** Rows that are put on a page at most: some forty sheets of paper. */
export const MAX_ROWS = 2000;

/** Which rows a page holds: up to the last position, a number of them in view, and how many in view are left over. */
export function rowsOnPaper(
  { rowCount, heights }: Pick<SheetFrame, 'rowCount' | 'heights'>,
  most = MAX_ROWS,
): { last: number; count: number; left: number } {
  let [shown, last, at] = [0, -1, 0];
  const take = (from: number, to: number) => {
    if (shown < most && to >= from) last = Math.min(to, from + most - shown - 1);
    shown += Math.max(0, to - from + 1);
  };
  for (const [top, bottom, heightPx] of heights) {
    if (heightPx !== 0) continue;
    take(at, top - 1);
    at = bottom + 1;
  }
  take(at, rowCount - 1);
  return { last, count: Math.min(shown, most), left: Math.max(0, shown - most) };
}
