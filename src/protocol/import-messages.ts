import type { Loss } from '../core/exchange/workbook/losses';
import type { CsvForm } from '../core/exchange/csv/csv-rows';
import type { FieldDescription, ReadAs, ReadingWhy, TableReading } from '../core/exchange/import/table-reading';
import type { Encoding } from '../core/exchange/text/detect-encoding';

/** One field of a file, as it is found and as it will be read. */
export interface FoundField extends FieldDescription {
  readonly as: ReadAs;
  readonly label: string;
}

/** A rule that the file holds. */
export interface FoundRule {
  readonly name: string;
  readonly sentence: string;
}

/** How a text is turned into letters and cells, and why. */
export interface TextForm extends CsvForm {
  readonly encoding: Encoding;
  readonly encodingWhy: string;
  readonly separatorWhy: string;
}

/** The contents of a file, and the sheet that it will become. */
export interface FilePreview {
  /** The file's format in words. */
  readonly format: string;
  /** The sheets in it. */
  readonly sheets: readonly string[];
  /** Which of them is shown, counted from 0. */
  readonly sheet: number;
  readonly name: string;
  readonly rowCount: number;
  /** The first rows as they stand in the file. */
  readonly head: readonly (readonly string[])[];
  readonly fields: readonly FoundField[];
  /** The settings of how its texts are read; null where the file determines them. */
  readonly reading: (TableReading & { readonly why: ReadingWhy }) | null;
  readonly header: number | null;
  /** For text files of separated values. */
  readonly form: TextForm | null;
  readonly rules: readonly FoundRule[];
  /** The parts of the file that the sheet will not hold. */
  readonly losses: readonly Loss[];
}

/** A person's corrections of the guesses. */
export interface ReadingChange {
  readonly sheet?: number;
  readonly header?: number | null;
  readonly encoding?: Encoding;
  readonly separator?: CsvForm['separator'];
  readonly quote?: CsvForm['quote'];
  readonly decimal?: TableReading['decimal'];
  readonly dates?: TableReading['dates'];
  readonly formulas?: boolean;
  /** How one column is read. */
  readonly as?: { readonly column: number; readonly as: ReadAs };
}

/** The questions of the page to the worker that reads files. A file that cannot be read is a failure in words. */
export type ImportQuestions = {
  readonly open: { readonly asked: { readonly file: File }; readonly answer: FilePreview };
  readonly change: { readonly asked: { readonly change: ReadingChange }; readonly answer: FilePreview };
  /** Makes the archive to be sent. */
  readonly pack: { readonly asked: { readonly name: string }; readonly answer: Blob };
};

/** How much of the file has been gone through, 0 to 1. */
export interface ImportProgress {
  readonly progress: number;
}
