import type { CellPosition } from '../../core/sheet/cell-position';
import { wantsReference } from '../../core/formula/syntax/typed-formula';
import { writeArea } from '../../core/sheet/address';
import type { Selection } from '../../protocol/sheet-view';
import { selectCell, selectedArea } from '../grid/engine/selection';
import type { Editing } from '../sheet/session-state';
import type { SessionPort } from '../sheet/session-port';

/**
 * Puts references into the formula that is being typed: by pointing at cells with the mouse, a finger or the arrow
 * keys.
 */
export class Pointing {
  /** The receiver of pointed cells, where it is not the cell that is being edited. */
  private taker: ((selection: Selection) => void) | null = null;
  private taken: Selection | null = null;

  constructor(private readonly session: SessionPort) {}

  /** Cells that are pointed at go to the latest subscriber, until it unsubscribes. */
  want(taker: ((selection: Selection) => void) | null): void {
    this.taker = taker;
    this.taken = null;
  }

  /** True while a cell that is pointed at goes into the formula. */
  get isOpen(): boolean {
    const { editing } = this.session.get();
    if (this.taker) return true;
    return (
      editing !== null &&
      (editing.pointed !== undefined || wantsReference(editing.text, editing.caret ?? editing.text.length))
    );
  }

  /** Points at a cell, or from the one pointed at first to another. */
  at(cell: CellPosition, extend: boolean): void {
    const { editing } = this.session.get();
    if (this.taker) {
      this.taken = extend && this.taken ? { anchor: this.taken.anchor, focus: cell } : selectCell(cell);
      return this.taker(this.taken);
    }
    if (!editing || !this.isOpen) return;
    const known = editing.pointed?.selection;
    this.put(editing, extend && known ? { anchor: known.anchor, focus: cell } : selectCell(cell));
  }

  /**
   * Points at the cell beside the one pointed at, or beside the one that is edited. Returns false where nothing can be
   * pointed at.
   */
  step(columns: number, rows: number, extend: boolean): boolean {
    const { editing, frame } = this.session.get();
    if (!editing || !frame || !this.isOpen) return false;
    const from = editing.pointed ? editing.pointed.selection[extend ? 'focus' : 'anchor'] : editing;
    const cell = {
      column: Math.max(0, Math.min(frame.fields.length - 1, from.column + columns)),
      position: Math.max(0, Math.min(frame.rowCount - 1, from.position + rows)),
    };
    this.at(cell, extend);
    return true;
  }

  private put(editing: Editing, selection: Selection): void {
    const { text, caret = text.length, pointed } = editing;
    const { from, to } = pointed ?? { from: caret, to: caret };
    const reference = writeArea(selectedArea(selection));
    const end = from + reference.length;
    this.session.point({
      ...editing,
      text: text.slice(0, from) + reference + text.slice(to),
      caret: end,
      pointed: { from, to: end, selection },
    });
  }
}
