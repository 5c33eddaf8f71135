import type { ExportFormatName, ExportOptions } from '../../core/exchange/export-formats';
import type { ExportReport } from '../../core/exchange/export-source';
import type { RecordsPage, RecordsWanted } from '../../core/exchange/json/records-page';
import type { Table } from '../../core/exchange/table';
import type { DataOptions } from '../../core/rules/evaluate-data';
import type { EvaluateReport } from '../../core/rules/evaluate-report';
import type { RuleSet } from '../../core/rules/read-rule-set';
import type { FieldId, RowId, SheetId } from '../../core/sheet/ids';
import type { GivenLook, Repaint } from '../../protocol/painted-sheet';
import type { RecordedChange, SheetPast } from '../../protocol/recorded-change';
import type { ViewOf } from './painted-view';

/** An entry that is being typed. */
export interface JudgedCell {
  readonly row: RowId;
  readonly field: FieldId;
  readonly input: string;
}

/** What is asked of a painter's thread. */
export interface PainterQuestions {
  readonly [kind: string]: { readonly asked: object; readonly answer: unknown };
  /** Answered with the sequence with which the sheet was opened. */
  readonly open: { readonly asked: { readonly sheet: SheetId; readonly packed: Uint8Array }; readonly answer: number };
  readonly paint: {
    readonly asked: { readonly sheet: SheetId; readonly key: string; readonly of: ViewOf };
    readonly answer: { readonly view: string; readonly packed: Uint8Array };
  };
  /** Answered with null where entries are not judged while they are typed. */
  readonly judge: { readonly asked: { readonly sheet: SheetId; readonly of: ViewOf; readonly cell: JudgedCell }; readonly answer: GivenLook | null };
  /** Records from the top, after one of them, that meet some conditions; a page of them. */
  readonly records: {
    readonly asked: { readonly sheet: SheetId; readonly wanted: RecordsWanted };
    readonly answer: RecordsPage | { readonly refused: string };
  };
  /** The sheet as a file. */
  readonly export: {
    readonly asked: { readonly sheet: SheetId; readonly format: ExportFormatName; readonly options: ExportOptions };
    readonly answer: { readonly parts: readonly (string | Uint8Array)[]; readonly report: ExportReport };
  };
  /** Judges data by rules; no sheet is at work. */
  readonly evaluate: {
    readonly asked: { readonly table: Table; readonly rules: RuleSet; readonly options: DataOptions };
    readonly answer: EvaluateReport;
  };
}

/** What it is told. */
export type SaidToPainter =
  | { readonly kind: 'receive'; readonly sheet: SheetId; readonly changes: readonly RecordedChange[] }
  | { readonly kind: 'use-past'; readonly sheet: SheetId; readonly past: SheetPast }
  | { readonly kind: 'drop'; readonly sheet: SheetId; readonly key: string }
  | { readonly kind: 'close'; readonly sheet: SheetId };

/** What it tells. */
export type ToldByPainter =
  { readonly sheet: SheetId; readonly view: string; readonly repaint: Repaint | 'stale' } | { readonly sheet: SheetId; readonly wantsPast: number };
