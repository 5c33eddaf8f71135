import type { LinkedHead } from './linked-table';
import type { CellPosition } from '../core/sheet/cell-position';
import type { LookValues } from '../core/looks/look';
import type { Rule } from '../core/rules/shape/rule';
import type { Problem } from '../core/rules/terms';
import type { SheetRole } from '../core/sharing/role';
import type { TrialCell } from '../core/rules/explain/trial-cell';
import type { TraceStep } from '../core/rules/explain/trace';
import type { CellRange } from '../core/sheet/address';
import type { CellIds, FieldId, RuleId } from '../core/sheet/ids';
import type { RowRole } from '../core/sheet/row-role';
import type { Field } from '../core/sheet/field';
import type { Style } from '../core/looks/style';
import type { Filling, LookPart, NamedRange, RuleSetUse } from '../core/sheet/sheet-part';

/** Rows and columns by position, both ends included. */
export type Area = CellRange;

/** A range from the cell where it was begun to the cell where it ends now; the first is where typing goes. */
export interface Selection {
  readonly anchor: CellPosition;
  readonly focus: CellPosition;
  /** Ranges that were chosen before and are selected as well. */
  readonly also?: readonly Area[];
}

/**
 * Which records are in view: those that a rule gives a look, whose shown text in a field is one of these, or whose cell
 * there meets a test. For this reader alone.
 */
export type Filter =
  | { readonly rule: RuleId }
  | { readonly field: FieldId; readonly texts: readonly string[] }
  | { readonly field: FieldId; readonly is: FilterTest; readonly value: string };
export const FILTER_TESTS = ['contains', 'at least', 'at most'] as const;
export type FilterTest = (typeof FILTER_TESTS)[number];

/** The active cell of the selection: its content, its formatting, and why it looks as it does. */
export interface ActiveCell extends CellPosition, CellIds {
  readonly input: string;
  readonly shown: string;
  /** Its ordinary formatting, that of its field and row included. */
  readonly style: Style;
  readonly role: RowRole;
  /** The mistake in its formula, with its character. */
  readonly mistake: string | null;
  /** Why nothing can be entered here; null where something can. */
  readonly lock: string | null;
  readonly trace: readonly TraceStep[];
  /** Instead of a trace, words for the look, for readers without rules. */
  readonly says: readonly string[];
}

/** A text that is shown on as many lines as its field leaves room for. */
export interface WrappedText {
  readonly position: number;
  readonly text: string;
  readonly widthPx: number;
  readonly sizePx: number;
  readonly isBold: boolean;
}

export interface ShownField extends Field {
  readonly label: string;
}

/** Rows, both ends included, of another height than others; 0 out of view. */
export type RowHeights = readonly (readonly [top: number, bottom: number, heightPx: number])[];

/** The frame of the sheet: what the page must know besides the visible window. */
export interface SheetFrame {
  /** The table that the records are some rows of; null where they are all there are. */
  readonly linked: LinkedHead | null;
  readonly name: string;
  /** True where no cell holds anything. */
  readonly isEmpty: boolean;
  readonly fields: readonly ShownField[];
  readonly rowCount: number;
  /** Rows at the top that stay in view: up to the header. */
  readonly frozenRows: number;
  /** Fields from the left that stay in view. */
  readonly frozenColumns: number;
  /** True where every other record is shaded. */
  readonly isBanded: boolean;
  /** In order, without overlaps. */
  readonly heights: RowHeights;
  readonly merges: readonly Area[];
  readonly names: readonly NamedRange[];
  /** Names of moments of its past. */
  readonly snapshots: readonly string[];
  /** Looks that the sheet has saved or changed. */
  readonly looks: readonly LookPart[];
  readonly filter: Filter | null;
  /** The settings for fillers. */
  readonly filling: Filling;
  /** Rule sets that are used here. */
  readonly ruleSets: readonly RuleSetUse[];
  /** Fields that hold the answers of answer keys. */
  readonly keyFields: readonly FieldId[];
  /** Rows with others beneath them that can be folded away. */
  readonly folds: readonly { readonly position: number; readonly folded: boolean }[];
}

/** A resolved look, ready to paint: final properties, and the names of the rules that made it. */
export interface PaintedLook {
  readonly properties: Readonly<Partial<LookValues>>;
  readonly rules: readonly string[];
  /** Ordinary formatting, of which the properties of rules take precedence. */
  readonly style: Style;
}

/** Numbers of a bar in a window. */
export const BAR_SHARES = 3;

/** By which the page says in which of the windows that it was sent a cell was chosen. */
export type WindowNumber = number;

/** A part of the sheet ready to paint. Arrays run row by row over the area. */
export interface SheetWindow {
  readonly area: Area;
  /** The rows of the area that are in view, from the top: those of the arrays. */
  readonly rows: readonly number[];
  readonly texts: readonly string[];
  /** Index into `lookTable`. */
  readonly looks: Uint16Array;
  readonly lookTable: readonly PaintedLook[];
  /**
   * Start, end and axis of each cell's bar, NaN where it has none; empty where no cell has a bar. Its colour and style
   * are in its look.
   */
  readonly bars: Float32Array;
  /** 0 text, 1 number or date, 2 logical or error, by which a cell is aligned. */
  readonly aligns: Uint8Array;
  /** 1 for what is lit; empty without a spotlight. */
  readonly spotlit: Uint8Array;
  /** 1 for cells in which the reader may type; empty where that is everywhere. */
  readonly open: Uint8Array;
  /** Which of the rows are shaded as every other record; empty where none is. */
  readonly banded: Uint8Array;
  /** How many levels each of the rows stands further in; empty where none does. */
  readonly levels: Uint8Array;
  readonly roles: readonly RowRole[];
  /**
   * The results of a formula in one of the columns that it reads, for each of the rows, null where it reads none there;
   * null without a preview.
   */
  readonly trial: { readonly column: number; readonly cells: readonly (TrialCell | null)[] } | null;
}

export interface LegendEntry {
  readonly id: RuleId;
  readonly key: string;
  readonly rule: Rule;
  readonly read: number;
  /** Cells read whose outcome has a look. */
  readonly matched: number;
  /** How many cells have each outcome, for conditions with several. */
  readonly outcomes: readonly number[];
  readonly problem: Problem | null;
  /** True while the database of a linked table is being asked: the counts are of the records here. */
  readonly isCounting: boolean;
  readonly isDraft: boolean;
  /** True for a rule that only this reader sees. */
  readonly isPersonal: boolean;
  /** How the condition reads in plain words. */
  readonly sentence: string;
}

/** Somebody else who has the sheet open. */
export interface PresentPerson {
  readonly key: string;
  readonly name: string;
  readonly role: SheetRole;
  /** Their selection; null where it is hidden. */
  readonly area: Area | null;
}

/** An entry of this person that somebody overwrote without having seen it. */
export interface LostCell extends CellPosition {
  readonly cell: CellIds;
  readonly mine: string;
  readonly theirs: string;
  /** The name of its author; null where it is hidden. */
  readonly by: string | null;
}
