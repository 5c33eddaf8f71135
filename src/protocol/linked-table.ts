import type { When } from '../core/rules/kinds/registry';
import type { FieldId, RowId } from '../core/sheet/ids';
import type { Bin } from '../core/stats/profile-values';

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

/** What the bench says of the values that a rule reads, over all records: null for a number that there is not. */
export interface LinkedProfile {
  readonly numbers: number;
  readonly blanks: number;
  readonly others: number;
  readonly dates: number;
  readonly today: number;
  readonly least: number | null;
  readonly greatest: number | null;
  readonly mean: number | null;
  readonly deviation: number | null;
  /** At each percent from 0 to 100; none where there are no numbers. */
  readonly percentiles: readonly number[];
  readonly bins: readonly Bin[];
  /** The most frequent texts, with the outcome of one of the cells of each, -1 for none. */
  readonly texts: readonly { readonly text: string; readonly count: number; readonly outcome: number }[];
  /** Around each threshold of the rule. */
  readonly nearest: readonly { readonly below: number | null; readonly at: number; readonly above: number | null }[];
}
