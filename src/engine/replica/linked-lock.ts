import type { Operation } from '../../core/sheet/change';
import type { RowId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { CellLock } from './cell-lock';

/** What is said where somebody types into a record of a linked table. */
const ONLY_READ_HERE = 'The records of this sheet stay in a database, and are only read here.';

/** Records of a linked table are not changed here; labels, rules, looks and all else of the sheet are. */
export class LinkedLock implements CellLock {
  readonly marksOpen = false;

  constructor(private readonly sheet: Sheet) {}

  lockOf(_: number, slot: number): string | null {
    return this.isRecord(this.sheet.rowId(slot)) ? ONLY_READ_HERE : null;
  }

  refusalOf(operations: readonly Operation[]): string | null {
    const isRefused = operations.some((operation) => {
      switch (operation.kind) {
        case 'insert-rows':
          return true;
        case 'remove-rows':
          return operation.rows.some((row) => this.isRecord(row));
        case 'change-rows':
          return operation.rows.some(({ id }) => this.isRecord(id));
        case 'set-cells':
        case 'set-styles':
          return operation.cells.some(({ row }) => this.isRecord(row));
        default:
          return false;
      }
    });
    return isRefused ? ONLY_READ_HERE : null;
  }

  private isRecord(row: RowId): boolean {
    const slot = this.sheet.findSlot(row);
    return slot === undefined || this.sheet.roleAt(slot) === 'record';
  }
}
