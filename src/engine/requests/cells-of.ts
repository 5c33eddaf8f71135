import type { CellIds } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { Area } from '../../protocol/sheet-view';

/** The cells of some areas by id, up to a number. */
export function cellsOf(sheet: Sheet, areas: readonly Area[], most: number): CellIds[] {
  const cells: CellIds[] = [];
  for (const { left, top, right, bottom } of areas)
    for (const slot of sheet.order.slice(top, bottom + 1))
      for (const { id: field } of sheet.fields.slice(left, right + 1))
        if (cells.length < most) cells.push({ row: sheet.rowId(slot), field });
  return cells;
}
