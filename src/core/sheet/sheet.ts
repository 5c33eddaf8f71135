import type { Operation } from './change';
import type { Applied } from './effect';
import { operationKind } from './operations/registry';
import { SheetStore } from './sheet-store';

/** A sheet in memory, to which operations can be applied. */
export class Sheet extends SheetStore {
  /** Applies an operation and gives its effects and its inverse. Missing cells, rows and fields are skipped. */
  apply(operation: Operation): Applied {
    return operationKind(operation).apply(this, operation);
  }
}
