import type { ExportFormatName } from '../../core/exchange/export-formats';
import type { ExportOptions } from '../../core/exchange/exported-file';
import type { ExportReport } from '../../core/exchange/export-source';
import type { RecordsPage, RecordsWanted } from '../../core/exchange/json/records-page';
import type { Evaluated, SentRecords } from './evaluate-records';
import type { FieldId, RowId, SheetId } from '../../core/sheet/ids';
import type { GivenLook, Repaint } from '../../protocol/packed/painted-sheet';
import type { RecordedChange, SheetPast } from '../../protocol/recorded-change';
import type { ViewOf } from './painted-view';

/** An entry that is being typed. */
export interface JudgedCell {
  readonly row: RowId;
  readonly field: FieldId;
  readonly input: string;
}

/** Why something cannot be had, in words for whom asked. */
export interface Refused {
  readonly refused: string;
}

/** A file with all of its parts at hand. */
export interface WholeFile {
  readonly parts: readonly (string | Uint8Array<ArrayBuffer>)[];
  readonly report: ExportReport;
}

/** The requests of a painter's worker; each is about one sheet. */
export type PainterRequests = {
  /** Answered with the sequence with which the sheet was opened. */
  readonly open: { readonly asked: { readonly packed: Uint8Array }; readonly answer: number };
  readonly paint: {
    readonly asked: { readonly key: string; readonly of: ViewOf };
    readonly answer: { readonly view: string; readonly packed: Uint8Array<ArrayBuffer> };
  };
  /** Answered with null where entries are not judged while they are typed. */
  readonly judge: {
    readonly asked: { readonly of: ViewOf; readonly cell: JudgedCell };
    readonly answer: GivenLook | null;
  };
  /** Records from the top, after one of them, that meet some conditions; a page of them. */
  readonly records: {
    readonly asked: { readonly wanted: RecordsWanted };
    readonly answer: RecordsPage | Refused;
  };
  /** The sheet as a file. */
  readonly export: {
    readonly asked: { readonly format: ExportFormatName; readonly options: ExportOptions };
    readonly answer: WholeFile | Refused;
  };
  /** Evaluates rules over data; no sheet is open. */
  readonly evaluate: { readonly asked: SentRecords; readonly answer: Evaluated };
  readonly receive: { readonly asked: { readonly changes: readonly RecordedChange[] }; readonly answer: null };
  readonly past: { readonly asked: { readonly past: SheetPast }; readonly answer: null };
  /** The clock has moved on. */
  readonly tick: { readonly asked: { readonly nowMs: number }; readonly answer: null };
  /** Gives its views the differences: asked for some time after a PainterEvent `wantsToTell`. */
  readonly tell: { readonly asked: object; readonly answer: null };
  /** Nobody follows a view any more. */
  readonly drop: { readonly asked: { readonly key: string }; readonly answer: null };
  readonly close: { readonly asked: object; readonly answer: null };
  /** Answered by a worker that is alive. */
  readonly ping: { readonly asked: object; readonly answer: null };
};

/** The events of a painter's worker. */
export type PainterEvent = { readonly sheet: SheetId } & (
  | { readonly kind: 'repainted'; readonly view: string; readonly repaint: Repaint | 'stale' }
  | { readonly kind: 'wants-past'; readonly until: number }
  | { readonly kind: 'wants-to-tell'; readonly afterMs: number }
);
