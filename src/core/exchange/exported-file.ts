import type { Decimal } from '../values/decimal-comma';
import type { Separator } from './csv/csv-rows';
import type { ExportReport } from './export-source';

export interface ExportOptions {
  /** Values as they are shown, or what was typed, formulas and all. */
  readonly values?: 'shown' | 'typed';
  readonly separator?: Separator;
  /** The decimal separator of shown values; the other sign groups digits. */
  readonly decimal?: Decimal;
  /** Whether text that other programs would take for a formula gets a mark before it. */
  readonly guard?: boolean;
}

/** A file, part by part, and what it does not say as the sheet does. */
export interface ExportedFile {
  readonly parts: Iterable<string | Uint8Array<ArrayBuffer>>;
  readonly report: ExportReport;
}
