import type { Change } from '../core/sheet/change';

/** A change with its place in the sheet's log. */
export interface RecordedChange {
  readonly sequence: number;
  readonly change: Change;
}

/** What the server answers to a change. */
export type ChangeAnswer = { readonly sequence: number } | { readonly refused: string };
