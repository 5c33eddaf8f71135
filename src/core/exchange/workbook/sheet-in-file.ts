import type { WorkbookSheet } from './workbook-sheet';

/** A sheet that is read when it is asked for. */
export interface SheetInFile {
  readonly name: string;
  /** Throws a BadFile. */
  read(): WorkbookSheet;
}
