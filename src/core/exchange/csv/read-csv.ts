import { CsvError, parse } from 'csv-parse/sync';
import type { Table, TableProblem } from '../table';

/**
 * Reads CSV (RFC 4180) or, with another separator, TSV. A blank line is a blank row unless it is the last; short rows
 * are filled up; a row longer than the first, a quote left open and NUL are problems.
 */
export function readCsv(text: string, separator: ',' | '\t' = ','): Table | TableProblem {
  const nul = text.indexOf('\0');
  if (nul >= 0) return { place: `line ${lineOf(text, nul)}`, message: 'there is a NUL character; expected text' };
  let found: { record: string[]; info: { lines: number } }[];
  try {
    found = parse(text, {
      delimiter: separator,
      bom: true,
      relax_column_count: true,
      skip_empty_lines: false,
      info: true,
    }) as unknown as typeof found;
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return { place: `line ${Number(error.lines ?? 1)}`, message: describe(error) };
  }
  if (found.length > 1 && isBlankLine(found.at(-1)!.record)) found.pop();
  const width = found[0]?.record.length ?? 0;
  const long = found.find(({ record }) => record.length > width);
  if (long)
    return { place: `line ${long.info.lines}`, message: `this row has ${long.record.length} cells; expected at most ${width}, as in the first row` };
  return {
    rows: found.map(({ record }) => (record.length === width ? record : [...record, ...Array<string>(width - record.length).fill('')])),
    width,
  };
}

const isBlankLine = (record: readonly string[]): boolean => record.length === 1 && record[0] === '';

function describe(error: CsvError): string {
  if (error.code === 'CSV_QUOTE_NOT_CLOSED') return 'a quoted cell is never closed; expected a closing "';
  if (error.code === 'CSV_INVALID_CLOSING_QUOTE' || error.code === 'INVALID_OPENING_QUOTE')
    return 'a quote stands in the wrong place; expected quotes around the whole cell and "" for a quote inside it';
  return 'this is not CSV';
}

const lineOf = (text: string, at: number): number => text.slice(0, at).split('\n').length;
