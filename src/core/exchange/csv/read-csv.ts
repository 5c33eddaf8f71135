import { itemAt, lastItem } from '../../values/item-at';
import { BadFile } from '../bad-file';
import type { Table, TableProblem } from '../../values/table';
import { CsvRows, lineOfRow, type Separator } from './csv-rows';

/**
 * Reads a whole CSV text (RFC 4180) or, with another separator, TSV. A blank line is a blank row unless it is the last;
 * short rows are filled up; a row longer than the first, a quote left open and NUL are problems.
 */
export function readCsv(text: string, separator: Separator = ','): Table | TableProblem {
  const reader = new CsvRows({ separator, quote: '"' });
  try {
    const rows = [...reader.push(text), ...reader.end()];
    if (rows.length > 1 && isBlankLine(lastItem(rows))) rows.pop();
    const width = rows[0]?.length ?? 0;
    const long = rows.findIndex((cells) => cells.length > width);
    if (long >= 0)
      throw new BadFile(
        `this row has ${itemAt(rows, long).length} cells; expected at most ${width}, as in the first row`,
        `line ${lineOfRow(rows, long)}`,
      );
    return {
      rows: rows.map((cells) =>
        cells.length === width ? cells : [...cells, ...Array<string>(width - cells.length).fill('')],
      ),
      width,
    };
  } catch (error) {
    if (error instanceof BadFile) return error;
    throw error;
  }
}

const isBlankLine = (row: readonly string[]): boolean => row.length === 1 && row[0] === '';
