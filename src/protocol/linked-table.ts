import type { When } from '../core/rules/kinds/registry';
import type { FieldId, RowId } from '../core/sheet/ids';

/** Rows of a linked table that a page has at once. */
export const WINDOW_ROWS = 1000;

/** A stretch of a linked table: the rows after a key, from one on, or before one; the first ones where none is given. */
export interface WindowAsked {
  readonly after?: readonly string[];
  readonly from?: readonly string[];
  readonly before?: readonly string[];
}

/** What a page knows of the table whose records it shows some of. */
export interface LinkedHead {
  /** The database (host and port) and the table, for people. */
  readonly host: string;
  readonly table: string;
  readonly window: WindowAsked;
  /** The keys of the first and the last row here; null where there is none. */
  readonly first: readonly string[] | null;
  readonly last: readonly string[] | null;
  /** Whether there are rows before and after these. */
  readonly hasBefore: boolean;
  readonly hasAfter: boolean;
  /** Rows in all, as the database estimates it. */
  readonly estimate: number;
}

/** What a rule comes to over all records of a linked table. */
export type LinkedJudgement =
  | { readonly problem: string }
  | {
      readonly problem: null;
      /** Cells that it reads in all, and of those the ones with each outcome that has a look. */
      readonly read: number;
      readonly matched: number;
      /** Of a rule that cannot be evaluated over some records: a condition that gives the same over them. */
      readonly when?: When;
      /** Or the outcome of each cell here: by field, in the order of `rows`, null for none. */
      readonly rows?: readonly RowId[];
      readonly outcomes?: Readonly<Record<FieldId, readonly (number | null)[]>>;
    };
