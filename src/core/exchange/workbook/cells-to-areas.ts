import type { CellPosition } from '../../sheet/cell-position';
import { itemAt } from '../../values/item-at';
import type { CellRange } from '../../sheet/address';

/** Cells as ranges: runs down each column, side by side where they are alike. The top-left ones come first. */
export function areasOf(cells: readonly CellPosition[]): CellRange[] {
  const byColumn = new Map<number, number[]>();
  for (const { column, position } of cells) {
    const positions = byColumn.get(column);
    if (positions) positions.push(position);
    else byColumn.set(column, [position]);
  }
  return joinedAreas(
    [...byColumn]
      .sort(([a], [b]) => a - b)
      .map(([column, positions]) => ({ column, runs: runsOf(positions.sort((a, b) => a - b)) })),
  );
}

export interface Run {
  readonly top: number;
  readonly bottom: number;
}

/** Positions in rising order as runs without gaps. */
export function runsOf(positions: Iterable<number>): Run[] {
  const runs: { top: number; bottom: number }[] = [];
  for (const position of positions) {
    const last = runs.at(-1);
    if (last && position <= last.bottom + 1) last.bottom = Math.max(last.bottom, position);
    else runs.push({ top: position, bottom: position });
  }
  return runs;
}

/** Columns side by side with the same runs become one range a run. */
export function joinedAreas(
  columns: readonly { readonly column: number; readonly runs: readonly Run[] }[],
): CellRange[] {
  const ranges: CellRange[] = [];
  for (let at = 0; at < columns.length;) {
    const { column, runs } = itemAt(columns, at);
    let end = at + 1;
    while (
      columns[end]?.column === column + end - at &&
      JSON.stringify(itemAt(columns, end).runs) === JSON.stringify(runs)
    )
      end++;
    for (const { top, bottom } of runs) ranges.push({ left: column, right: column + end - at - 1, top, bottom });
    at = end;
  }
  return ranges;
}
