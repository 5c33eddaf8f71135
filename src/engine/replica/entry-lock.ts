import { isFormulaInput } from '../../core/values/is-formula-input';
import { fillingOf, NO_FORMULAS, ONLY_VALUES, OpenCells } from '../../core/sharing/filling';
import type { Reader } from '../../core/sharing/role';
import type { Operation } from '../../core/sheet/change';
import type { FieldId, RowId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { CellLock } from './cell-lock';

/** What a reader without rules may enter, and why not the rest. The server decides; this saves typing in vain. */
export class EntryLock implements CellLock {
  readonly marksOpen = true;
  private readonly open: OpenCells;

  constructor(
    private readonly sheet: Sheet,
    readonly reader: Reader,
  ) {
    this.open = new OpenCells(fillingOf(sheet.parts.values()), new Set());
  }

  /** Why nothing can be entered in a cell; null where something can. */
  lockOf(column: number, slot: number): string | null {
    return this.lockOfCell(this.sheet.rowId(slot), this.sheet.field(column).id);
  }

  private lockOfCell(row: RowId, field: FieldId): string | null {
    const slot = this.sheet.findSlot(row);
    return this.open.lockOf({ row, field, role: slot === undefined ? 'note' : this.sheet.roleAt(slot) }, this.reader);
  }

  /** Why some operations cannot be done; null where they can. */
  refusalOf(operations: readonly Operation[]): string | null {
    for (const operation of operations) {
      if (operation.kind !== 'set-cells') return ONLY_VALUES;
      for (const { row, field, input } of operation.cells) {
        const lock = this.lockOfCell(row, field) ?? (isFormulaInput(input) ? NO_FORMULAS : null);
        if (lock !== null) return lock;
      }
    }
    return null;
  }
}
