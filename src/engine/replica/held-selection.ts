import { idsOfCell, positionOfCell, type CellPosition } from '../../core/sheet/cell-position';
import type { CellIds } from '../../core/sheet/ids';
import { itemAt } from '../../core/values/item-at';
import type { Sheet } from '../../core/sheet/sheet';
import type { Selection } from '../../protocol/sheet-view';

/** The page's selection, held by ids, so that it stays on its cells while others move rows and fields. */
export class HeldSelection {
  private selection: Selection | null = null;
  private cells: readonly (CellIds | undefined)[] = [];

  /** Null before the page has sent a selection. */
  get activePosition(): CellPosition | null {
    return this.selection?.anchor ?? null;
  }

  /** `idsOf` says which cell was chosen at a place, where it is not the one that stands there now. */
  hold(sheet: Sheet, selection: Selection | null, idsOf = idsOfCell): void {
    this.selection = selection;
    this.cells = selection ? corners(selection).map((place) => idsOf(sheet, place)) : [];
  }

  /**
   * Holds what stands where the selection is now: the person who moves rows and fields decides what is selected after
   * it.
   */
  holdAnew(sheet: Sheet): void {
    this.hold(sheet, this.selection);
  }

  /**
   * Where its cells went, reported once; null where they are where they were. A cell that is gone leaves its position
   * selected.
   */
  moved(sheet: Sheet): { from: Selection; to: Selection } | null {
    if (!this.selection) return null;
    const from = this.selection;
    const was = corners(from);
    const places = was.map((place, at) => {
      const ids = this.cells[at];
      return (ids && positionOfCell(sheet, ids)) ?? within(sheet, place);
    });
    if (
      places.every(
        ({ column, position }, at) => column === itemAt(was, at).column && position === itemAt(was, at).position,
      )
    )
      return null;
    const to = fromCorners(places);
    this.hold(sheet, to);
    return { from, to };
  }
}

const corners = ({ anchor, focus, also = [] }: Selection): CellPosition[] => [
  anchor,
  focus,
  ...also.flatMap(({ left, top, right, bottom }) => [
    { column: left, position: top },
    { column: right, position: bottom },
  ]),
];

function fromCorners(places: readonly CellPosition[]): Selection {
  const [anchor, focus, ...others] = [itemAt(places, 0), itemAt(places, 1), ...places.slice(2)];
  const also = others.flatMap((from, at) => {
    const to = others[at + 1];
    if (at % 2 === 1 || !to) return [];
    return {
      left: Math.min(from.column, to.column),
      right: Math.max(from.column, to.column),
      top: Math.min(from.position, to.position),
      bottom: Math.max(from.position, to.position),
    };
  });
  return { anchor, focus, ...(also.length ? { also } : {}) };
}

const within = (sheet: Sheet, { column, position }: CellPosition): CellPosition => ({
  column: Math.max(0, Math.min(column, sheet.fields.length - 1)),
  position: Math.max(0, Math.min(position, sheet.rowCount - 1)),
});
