import type { CellRange } from '../address';
import type { PartId } from '../ids';
import type { Sheet } from '../sheet';

/** Merged cells as they lie now. One whose rows or fields are gone does not count. */
export function mergeAreas(sheet: Sheet): { readonly id: PartId; readonly area: CellRange }[] {
  return sheet.partsOf('merge').flatMap((part) => {
    const rows = [part.top, part.bottom]
      .map((row) => sheet.findSlot(row))
      .flatMap((slot) => (slot === undefined ? [] : sheet.positionOf(slot)));
    const columns = [part.left, part.right].flatMap((field) => sheet.findColumn(field) ?? []);
    if (rows.length < 2 || columns.length < 2) return [];
    const area = {
      left: Math.min(...columns),
      right: Math.max(...columns),
      top: Math.min(...rows),
      bottom: Math.max(...rows),
    };
    return { id: part.id, area };
  });
}
