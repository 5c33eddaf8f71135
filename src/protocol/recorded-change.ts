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
  /** The name of its author, for those who may see it. */
  readonly by?: string;
}

/** The server's answer to a change. */
export type ChangeAnswer = { readonly sequence: number } | { readonly refused: string };

/** The known history of a sheet up to a sequence. */
export interface SheetPast {
  /** The moment (milliseconds of the Unix epoch) since which every change is known. */
  readonly from: number;
  /** True where that is since the sheet was made. */
  readonly isWhole: boolean;
  readonly changes: readonly PastChange[];
}
