import { readCsv } from '../core/exchange/csv/read-csv';
import type { Separator } from '../core/exchange/csv/csv-rows';
import type { Decimal } from '../core/exchange/exported-file';
import { otherKind } from '../core/exchange/import/other-kind';
import { inputOf, type TableReading } from '../core/exchange/import/table-reading';
import { jsonLinesTable, readJson } from '../core/exchange/json/read-json';
import type { Table } from '../core/values/table';
import { detectEncoding } from '../core/exchange/text/detect-encoding';
import { asWindows1252 } from '../core/exchange/text/windows-1252';
import { BadInput } from './bad-input';
import { placeOf, telling, textOf } from './read-bytes';

/** How a text file is written where it is not as usual. */
export interface TextForm {
  /** The separator between values; by the file's ending where absent. */
  readonly separator?: Separator;
  readonly decimal?: Decimal;
}

/** The rows of CSV, TSV, JSON or JSON Lines, in whatever encoding they are. Throws a BadInput. */
export function tableOf(
  path: string,
  bytes: Uint8Array,
  { separator = separatorOf(path), decimal = '.' }: TextForm = {},
): Table {
  const other = otherKind(bytes);
  if (other !== undefined) throw new BadInput(placeOf(path), other);
  // JSON is UTF-8 alone (RFC 8259, 8.1).
  if (/\.(jsonl|ndjson)$/i.test(path)) return telling(path, () => jsonLinesTable(textOf(path, bytes)));
  const { encoding } = detectEncoding(bytes);
  const decoded = new TextDecoder(encoding).decode(bytes);
  const text = encoding === 'windows-1252' ? asWindows1252(decoded) : decoded;
  const isJson = /\.json$/i.test(path) || (path === '-' && /^\s*\[/.test(text.slice(0, 1000)));
  const table = isJson ? readJson(textOf(path, bytes)) : readCsv(text, separator);
  if ('message' in table) throw new BadInput([placeOf(path), table.place].filter(Boolean).join(', '), table.message);
  return decimal === ','
    ? { ...table, rows: table.rows.map((cells) => cells.map((cell) => inputOf(cell, WITH_COMMA, 'values'))) }
    : table;
}

const WITH_COMMA: TableReading = { decimal: ',', dates: null, formulas: true, header: null, as: [] };

export const separatorOf = (path: string): Separator => (/\.(tsv|tab)$/i.test(path) ? '\t' : ',');
