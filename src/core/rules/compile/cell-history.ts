import type { CellValue } from '../../values/cell-value';

/** The past contents of the cells of a sheet. The caller keeps it: the core has no history of its own. */
export interface CellHistory {
  /**
   * The last value that a cell had before a moment (a serial date and time of day in the sheet's zone); undefined where
   * none is known.
   */
  valueBefore(column: number, slot: number, moment: number): CellValue | undefined;
  /** The moment of a snapshot; undefined where there is no such snapshot. */
  momentOf(snapshot: string): number | undefined;
}
