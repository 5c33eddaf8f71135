import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Transaction } from '../../database';
import type { HeldSheet } from '../held-sheet';

/** The meaning of an operation in the database. Its meaning in memory is in core/sheet/operations. */
export interface StoredOperation<O extends Operation> {
  /** Checks it against the stored sheet, applies it, and gives its inverse. */
  apply(sheet: HeldSheet, operation: O): Promise<Operation[]>;
  /** Undoing a change: the part of this step that concerns what nobody has changed since. */
  unchangedSince(tx: Transaction, sheet: SheetId, step: UndoStep<O>): Promise<Operation[]>;
}

/** A step of undoing a change. */
export interface UndoStep<O extends Operation> {
  readonly operation: O;
  /** The operations of the change that is undone. */
  readonly operations: readonly Operation[];
}
