import type { Operation } from './change';
import type { Applied } from './effect';
import { operationKind } from './operations/registry';
import { SheetStore } from './sheet-store';

/** A sheet in memory, to which operations can be applied. */
export class Sheet extends SheetStore {
  /**
   * Applies an operation and gives what it touched and its inverse. Cells, rows and fields that no longer exist are
   * passed over.
   */
  apply(operation: Operation): Applied {
    return operationKind(operation).apply(this, operation);
  }
}
