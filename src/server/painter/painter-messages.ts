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

/** What the server asks of a painter's thread. What has an id is answered by one `done` or `failed` with it. */
export type ToPainter =
  | { readonly kind: 'open'; readonly id: number; readonly sheet: SheetId; readonly packed: Uint8Array }
  | { readonly kind: 'paint'; readonly id: number; readonly sheet: SheetId; readonly key: string; readonly of: ViewOf }
  | { readonly kind: 'judge'; readonly id: number; readonly sheet: SheetId; readonly of: ViewOf; readonly cell: JudgedCell }
  | { readonly kind: 'receive'; readonly sheet: SheetId; readonly changes: readonly RecordedChange[] }
  | { readonly kind: 'use-past'; readonly sheet: SheetId; readonly past: SheetPast }
  | { readonly kind: 'drop'; readonly sheet: SheetId; readonly key: string }
  | { readonly kind: 'close'; readonly sheet: SheetId };

export interface PainterAnswers {
  /** The sequence with which the sheet was opened. */
  readonly open: number;
  readonly paint: { readonly view: string; readonly packed: Uint8Array };
  /** Null where entries are not judged while they are typed. */
  readonly judge: GivenLook | null;
}

/** What it tells. */
export type FromPainter =
  | { readonly id: number; readonly done: unknown }
  | { readonly id: number; readonly failed: string }
  | { readonly sheet: SheetId; readonly view: string; readonly repaint: Repaint | 'stale' }
  | { readonly sheet: SheetId; readonly wantsPast: number };
