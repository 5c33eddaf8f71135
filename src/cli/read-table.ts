import { readCsv } from '../core/exchange/csv/read-csv';
import type { Separator } from '../core/exchange/csv/csv-rows';
import type { Decimal } from '../core/values/decimal-comma';
import { IMPORT_FORMATS, namedFormat } from '../core/exchange/import-formats';
import { inputOf, type TableReading } from '../core/exchange/import/table-reading';
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
  const { encoding } = detectEncoding(bytes);
  const decoded = new TextDecoder(encoding).decode(bytes);
  const format = namedFormat(path) ?? (path === '-' && /^\s*\[/.test(decoded) ? IMPORT_FORMATS.json : undefined);
  const table =
    format?.gives === 'table'
      ? // JSON is UTF-8 alone (RFC 8259, 8.1).
        telling(path, () => format.read(textOf(path, bytes)))
      : readCsv(encoding === 'windows-1252' ? asWindows1252(decoded) : decoded, separator);
  if ('message' in table) throw new BadInput([placeOf(path), table.place].filter(Boolean).join(', '), table.message);
  return decimal === ','
    ? { ...table, rows: table.rows.map((cells) => cells.map((cell) => inputOf(cell, WITH_COMMA, 'values'))) }
    : table;
}

const WITH_COMMA: TableReading = { decimal: ',', dates: null, formulas: true, header: null, as: [] };

export const separatorOf = (path: string): Separator => (/\.(tsv|tab)$/i.test(path) ? '\t' : ',');
