import type { CellIds } from './ids';
import type { Sheet } from './sheet';

/** A cell by where it is now: its column from the left and its row from the top, both counted from 0. */
export interface CellPosition {
  readonly column: number;
  readonly position: number;
}

/** Where the cell with these ids is, or undefined where its row or its field is gone. */
export function positionOfCell(sheet: Sheet, ids: CellIds): CellPosition | undefined {
  const cell = sheet.findCell(ids);
  return cell && { column: cell.column, position: sheet.positionOf(cell.slot) };
}

/** The ids of the cell at a position, or undefined outside the sheet. */
export function idsOfCell(sheet: Sheet, { column, position }: CellPosition): CellIds | undefined {
  const slot = sheet.order[position];
  const field = sheet.fields[column];
  return slot === undefined || !field ? undefined : { row: sheet.rowId(slot), field: field.id };
}
