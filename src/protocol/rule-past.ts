import type { DatedBin } from '../core/findings/past/painted-by-date';
import type { PastSummary } from '../core/findings/past/summarize-spells';
import type { CellIds } from '../core/sheet/ids';

/** Why the past of a rule cannot be shown; `reading`: it will soon. */
export type PastGap = 'reading' | 'shades-all' | 'needs-past' | 'nothing-known' | 'cannot-work';

/** A cell that a rule would have found. */
export interface PastCellTold {
  readonly cell: CellIds;
  readonly record: string;
  readonly label: string;
  /** True where it is still in the sheet. */
  readonly isThere: boolean;
  readonly times: number;
  readonly days: number;
  readonly isNow: boolean;
}

/** What a rule would have found over the past that is known, or a part of it. */
export type RulePast =
  | { readonly gap: PastGap; readonly message: string }
  | {
      readonly gap: null;
      readonly summary: Omit<PastSummary, 'most'>;
      readonly most: readonly PastCellTold[];
    };

/** The part of the past that is asked about: so many days, or all that is known. */
export interface PastAsked {
  readonly days: number | null;
}

/** How many records a rule paints, by a date of theirs. */
export type PaintedByDate = readonly DatedBin[];

/** One time that a cell would have had the look of a rule. */
export interface PastRow {
  readonly record: string;
  readonly label: string;
  readonly outcome: string;
  readonly entered: string;
  /** Empty where it has it still. */
  readonly left: string;
  readonly days: number;
}
