import type { Operation } from '../../core/sheet/change';

/** Why something cannot be entered. The server decides; this saves typing in vain. */
export interface CellLock {
  /** Whether cells in which something can be entered are marked. */
  readonly marksOpen: boolean;
  /** Why nothing can be entered in a cell; null where something can. */
  lockOf(column: number, slot: number): string | null;
  /** Why some operations cannot be done; null where they can. */
  refusalOf(operations: readonly Operation[]): string | null;
}
