import { stringify } from 'csv-stringify/sync';
import type { Table } from '../table';

/** Writes a table as CSV (RFC 4180) or, with another separator, TSV: quotes where they are needed, lines that end in CR LF. */
export function writeCsv({ rows }: Table, separator: ',' | '\t' = ','): string {
  return stringify(rows as string[][], { delimiter: separator, record_delimiter: '\r\n' });
}
