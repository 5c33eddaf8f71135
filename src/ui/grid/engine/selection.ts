import type { Area } from '../../../protocol/engine-messages';
import type { Cell } from './geometry';

/** A range from the cell where it was begun to the cell where it ends now; the first is where typing goes. */
export interface Selection {
  readonly anchor: Cell;
  readonly focus: Cell;
}

export const selectCell = (cell: Cell): Selection => ({ anchor: cell, focus: cell });

export const selectedArea = ({ anchor, focus }: Selection): Area => ({
  left: Math.min(anchor.column, focus.column),
  right: Math.max(anchor.column, focus.column),
  top: Math.min(anchor.position, focus.position),
  bottom: Math.max(anchor.position, focus.position),
});

export const isSingle = ({ anchor, focus }: Selection): boolean => anchor.column === focus.column && anchor.position === focus.position;

/** The cell moved by so many columns and rows, kept on a sheet of this size. */
export function moveCell(cell: Cell, by: { columns: number; rows: number }, size: { columnCount: number; rowCount: number }): Cell {
  const within = (value: number, count: number) => Math.max(0, Math.min(count - 1, value));
  return { column: within(cell.column + by.columns, size.columnCount), position: within(cell.position + by.rows, size.rowCount) };
}
