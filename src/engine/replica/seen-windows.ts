import { idsOfCell, type CellPosition } from '../../core/sheet/cell-position';
import type { CellIds, FieldId, RowId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { WindowNumber } from '../../protocol/sheet-view';

interface SeenWindow {
  readonly number: WindowNumber;
  readonly fields: readonly FieldId[];
  /** The rows in it, by their positions then. */
  readonly rows: ReadonlyMap<number, RowId>;
}

/** More than the page is sent while a message of its own is on its way. */
const MAX_KEPT = 16;

/**
 * What stood where in the windows that the page was sent last. A cell that is chosen in a window while others move rows
 * and fields is the one that was seen there, not the one that has come to its position since.
 */
export class SeenWindows {
  private readonly kept: SeenWindow[] = [];
  private last = 0;
  /** Windows before this one show rows or fields where they may no longer be. */
  private firstValid = 0;

  /** Others have changed the sheet: what was sent so far may be in other places now. */
  outdate(): void {
    this.firstValid = this.last + 1;
  }

  /** Remembers the rows at these positions, which the page is sent, and gives the number of the window. */
  sent(sheet: Sheet, positions: readonly number[]): WindowNumber {
    const rows = new Map(positions.map((position) => [position, sheet.rowId(sheet.slotAt(position))]));
    this.kept.push({ number: ++this.last, fields: sheet.fields.map(({ id }) => id), rows });
    if (this.kept.length > MAX_KEPT) this.kept.shift();
    return this.last;
  }

  /** True where what others did since has moved nothing in it. */
  holds(window: WindowNumber = this.firstValid): boolean {
    return window >= this.firstValid;
  }

  /** The cell that stood at a place in a window; the one that stands there now where the window still holds. */
  idsOf(sheet: Sheet, place: CellPosition, window?: WindowNumber): CellIds | undefined {
    const seen = this.holds(window) ? undefined : this.kept.find(({ number }) => number === window);
    const row = seen?.rows.get(place.position);
    const field = seen?.fields[place.column];
    return row !== undefined && field !== undefined ? { row, field } : idsOfCell(sheet, place);
  }
}
