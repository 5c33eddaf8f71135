import type { PastChange } from '../core/rules/evaluate/cell-past';
import type { Change } from '../core/sheet/change';

/** A change on its way to the server. */
export interface SentChange extends Change {
  /** The last change that its author had seen. */
  readonly seen?: number;
}

/** A change with its place in the sheet's log. */
export interface RecordedChange {
  readonly sequence: number;
  /** When the server took it, milliseconds of the Unix epoch. */
  readonly at: number;
  readonly change: Change;
  /** The last change that its author had seen, where that is known. */
  readonly seen?: number;
  /** The name of who made it, for those who are told. */
  readonly by?: string;
}

/** What the server answers to a change. */
export type ChangeAnswer = { readonly sequence: number } | { readonly refused: string };

/** What is known of a sheet's past up to a sequence. */
export interface SheetPast {
  /** The moment (milliseconds of the Unix epoch) from which on every change is told of. */
  readonly from: number;
  /** True where that is since the sheet was made. */
  readonly isWhole: boolean;
  readonly changes: readonly PastChange[];
}
