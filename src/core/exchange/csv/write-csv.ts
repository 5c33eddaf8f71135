import Papa from 'papaparse';
import type { Table } from '../../values/table';
import type { Separator } from './csv-rows';

/**
 * Writes a table as CSV (RFC 4180) or, with another separator, TSV: quotes where they are needed, lines that end in CR
 * LF.
 */
export function writeCsv({ rows }: Table, separator: Separator = ','): string {
  if (rows.length === 0) return '';
  return `${Papa.unparse(rows as string[][], { delimiter: separator, newline: '\r\n' })}\r\n`;
}
