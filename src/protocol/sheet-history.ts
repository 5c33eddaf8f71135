import type { FieldId, RowId, RuleId } from '../core/sheet/ids';

/** Changes in one answer. */
export const HISTORY_PAGE = 50;

/** The content of one cell before a change and after it. */
export interface CellStep {
  readonly row: RowId;
  readonly field: FieldId;
  /** The present names of the record and the field. */
  readonly record: string;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

/** One change of a sheet's log, for people. */
export interface HistoryEntry {
  readonly sequence: number;
  /** Milliseconds of the Unix epoch. */
  readonly at: number;
  /** The name of who made it. */
  readonly author: string;
  /** `person ID` or `visitor ID`. */
  readonly by: string;
  /** The name of the moment after it. */
  readonly names: readonly string[];
  /** Its effect, in a few words for each operation. */
  readonly says: readonly string[];
  /** The first of the cells that it entered. */
  readonly cells: readonly CellStep[];
}

/** Which changes are wanted, the newest first. */
export interface HistoryQuery {
  /** Only those before this sequence. */
  readonly before?: number | undefined;
  /** Only those that entered something in this field, or this record. */
  readonly field?: FieldId | undefined;
  readonly row?: RowId | undefined;
  /** Only those that made, changed or removed this rule. */
  readonly rule?: RuleId | undefined;
  /** Only those that somebody made: `person ID` or `visitor ID`. */
  readonly by?: string | undefined;
}
