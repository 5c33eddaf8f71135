import { inDigits } from '../core/values/counted';
import type { ArchivedChange, ArchivedHead } from '../core/exchange/archive/archive-lines';
import { BadFile } from '../core/exchange/bad-file';
import { LIMITS } from '../core/exchange/limits';
import type { StoredRow } from '../core/sheet/change';
import { readArchiveLine, readHeadLine } from './archive-schema';

/** What a line of an archive holds; null for its last line, which only counts the others. */
export type ArchiveItem =
  | { readonly head: ArchivedHead }
  | { readonly row: StoredRow }
  | { readonly change: ArchivedChange }
  | null;

/**
 * Reads an archive line by line, and checks that it holds together: the head first, then rows and changes within the
 * limits of a sheet, then the line that counts them, and nothing after it. Throws BadFiles that name the line.
 */
export class ArchiveReader {
  readonly counts = { rows: 0, changes: 0 };
  private number = 0;
  private filled = 0;
  private isWhole = false;

  take(text: string): ArchiveItem {
    this.number++;
    const place = `line ${this.number}`;
    if (this.number === 1) return { head: readHeadLine(text) };
    if (this.isWhole) throw new BadFile('there is more after the last line of the archive', place);
    const { row, change, end } = readArchiveLine(text, this.number);
    if (row) return this.counted(row, place);
    if (change) {
      this.counts.changes++;
      return { change };
    }
    if (end?.rows !== this.counts.rows || end.changes !== this.counts.changes)
      throw new BadFile('rows or changes are missing from the file', place);
    this.isWhole = true;
    return null;
  }

  private counted(row: StoredRow, place: string): ArchiveItem {
    this.filled += Object.keys(row.cells).length;
    if (this.filled > LIMITS.cells)
      throw new BadFile(`a sheet takes at most ${inDigits(LIMITS.cells)} cells that hold something`, place);
    if (++this.counts.rows > LIMITS.rows)
      throw new BadFile(`a sheet takes at most ${inDigits(LIMITS.rows)} rows`, place);
    return { row };
  }

  /** To be called after the last line. */
  end(): void {
    if (!this.isWhole) throw new BadFile('the archive ends before the sheet does: it was cut off');
  }
}
