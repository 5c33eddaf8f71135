import type { CellRange } from '../sheet/address';
import type { Merge } from '../sheet/sheet-part';
import { mergeAreas } from '../sheet/layout/merge-areas';
import { EditRefusal, type Editor } from './editor';

/** Shows an area as one cell. What the others hold is kept, out of sight. */
export const mergeCells: Editor<{ readonly area: CellRange }> = {
  operations(sheet, { area }, { newId }) {
    const { left, top, right, bottom } = area;
    if (left === right && top === bottom) throw new EditRefusal('Select more than one cell to merge them.');
    const overlapped = mergeAreas(sheet).filter((merged) => overlaps(merged.area, area));
    const part: Merge = {
      id: newId(),
      kind: 'merge',
      top: sheet.rowId(sheet.slotAt(top)),
      bottom: sheet.rowId(sheet.slotAt(bottom)),
      left: sheet.field(left).id,
      right: sheet.field(right).id,
    };
    return [
      ...(overlapped.length ? [{ kind: 'remove-parts' as const, parts: overlapped.map(({ id }) => id) }] : []),
      { kind: 'put-parts', parts: [part] },
    ];
  },
  says: () => 'merge cells',
};

export const splitCells: Editor<{ readonly area: CellRange }> = {
  operations(sheet, { area }) {
    const parts = mergeAreas(sheet).flatMap((merged) => (overlaps(merged.area, area) ? merged.id : []));
    return parts.length ? [{ kind: 'remove-parts', parts }] : [];
  },
  says: () => 'split cells',
};

const overlaps = (a: CellRange, b: CellRange): boolean =>
  a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;
