import type { CellPosition } from '../../../core/sheet/cell-position';
import type { Area, Selection } from '../../../protocol/sheet-view';

export const selectCell = (cell: CellPosition): Selection => ({ anchor: cell, focus: cell });

export const selectedArea = ({ anchor, focus }: Selection): Area => ({
  left: Math.min(anchor.column, focus.column),
  right: Math.max(anchor.column, focus.column),
  top: Math.min(anchor.position, focus.position),
  bottom: Math.max(anchor.position, focus.position),
});

/** All ranges that are selected, the one that is worked on first. */
export const selectedAreas = (selection: Selection): Area[] => [selectedArea(selection), ...(selection.also ?? [])];

/** True where whole fields are selected, header and all. */
export const isWholeColumns = ({ top, bottom }: Area, { rowCount }: { readonly rowCount: number }): boolean =>
  top === 0 && bottom === rowCount - 1;

export const isSingle = ({ anchor, focus, also = [] }: Selection): boolean =>
  also.length === 0 && anchor.column === focus.column && anchor.position === focus.position;

/** The facts about cells that a move uses. */
export interface Steps {
  readonly columnCount: number;
  readonly rowCount: number;
  rowHeight(position: number): number;
  columnWidth(column: number): number;
}

/** The cell a number of columns and rows away, kept on the sheet; rows and fields out of view are skipped. */
export function moveCell(cell: CellPosition, by: { columns: number; rows: number }, steps: Steps): CellPosition {
  return {
    column: step(cell.column, by.columns, {
      count: steps.columnCount,
      isShown: (column) => steps.columnWidth(column) > 0,
    }),
    position: step(cell.position, by.rows, {
      count: steps.rowCount,
      isShown: (position) => steps.rowHeight(position) > 0,
    }),
  };
}

function step(
  from: number,
  by: number,
  { count, isShown }: { count: number; isShown: (place: number) => boolean },
): number {
  const direction = Math.sign(by);
  let at = Math.max(0, Math.min(count - 1, from + by));
  // From a place out of view, on in the same direction, or back.
  while (direction !== 0 && at >= 0 && at < count && !isShown(at)) at += direction;
  if (at >= 0 && at < count) return at;
  for (at = Math.max(0, Math.min(count - 1, from + by)); at !== from && !isShown(at); at -= direction);
  return at;
}
