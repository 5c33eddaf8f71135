import type { Loss } from './losses';
import type { Style } from '../../looks/style';
import type { Rule } from '../../rules/shape/rule';
import type { CellRange } from '../../sheet/address';

/** A cell of a workbook: what would be typed for it, formulas with plain references, and its formatting. */
export interface WorkbookCell {
  readonly input: string;
  readonly style?: Style;
}

export interface WorkbookRow {
  /** By column, counted from 0; those that hold nothing and have no formatting are absent. */
  readonly cells: ReadonlyMap<number, WorkbookCell>;
  readonly heightPx?: number;
  readonly level?: number;
}

export interface WorkbookColumn {
  readonly widthPx?: number;
  readonly hidden?: boolean;
  readonly style?: Style;
}

/** A rule of a workbook: over cells, formulas and addresses as in the file. */
export interface WorkbookRule extends Omit<Rule, 'id' | 'name'> {
  /** Its name; null where the file gives none. */
  readonly name: string | null;
}

/** One sheet of a workbook, whatever standard the file follows. */
export interface WorkbookSheet {
  readonly name: string;
  readonly width: number;
  /** By position, counted from 0; blank ones may be absent. */
  readonly rows: ReadonlyMap<number, WorkbookRow>;
  readonly rowCount: number;
  readonly columns: ReadonlyMap<number, WorkbookColumn>;
  readonly merges: readonly CellRange[];
  /** Fields and rows that stay in view. */
  readonly frozen: { readonly columns: number; readonly rows: number };
  readonly names: readonly { readonly name: string; readonly refersTo: string }[];
  /** In order of precedence. */
  readonly rules: readonly WorkbookRule[];
  /** The parts of the file that a sheet cannot hold, in words. */
  readonly losses: readonly Loss[];
}
