import type { DatedBin } from '../core/findings/past/painted-by-date';
import type { PastSummary } from '../core/findings/past/summarize-spells';
import type { Rule } from '../core/rules/shape/rule';
import type { CellIds, FieldId } from '../core/sheet/ids';

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
  /** Why it cannot be shown; `reading`: it will soon. */
  | { readonly gap: 'reading' | 'shades-all' | 'needs-past' | 'nothing-known' }
  | { readonly gap: 'cannot-work'; readonly message: string }
  | {
      readonly gap: null;
      readonly summary: Omit<PastSummary, 'most'>;
      /** Of a quiet rule: how often its look would have come. */
      readonly painted: number | null;
      readonly most: readonly PastCellTold[];
    };

/** The part of the past that is asked about: so many days, or all that is known. */
export interface PastAsked {
  readonly days: number | null;
}

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

/** The requests about the past of a rule. */
export type PastQuestions = {
  /** What a rule would have found over the sheet's log; the second as rows of a table. */
  readonly 'ask-past': {
    readonly asked: { readonly rule: Rule; readonly past: PastAsked };
    readonly answer: RulePast;
  };
  /** How many records a rule paints, by a date of theirs; and the fields that have one. */
  readonly 'ask-by-date': {
    readonly asked: { readonly rule: Rule; readonly field: FieldId };
    readonly answer: readonly DatedBin[];
  };
  readonly 'ask-date-fields': { readonly asked: object; readonly answer: readonly FieldId[] };
  readonly 'ask-past-rows': {
    readonly asked: { readonly rule: Rule; readonly past: PastAsked };
    readonly answer: readonly PastRow[];
  };
};
