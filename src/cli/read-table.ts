import { readCsv } from '../core/exchange/csv/read-csv';
import type { Separator } from '../core/exchange/csv/csv-rows';
import { otherKind } from '../core/exchange/import/other-kind';
import { jsonLinesTable, readJson } from '../core/exchange/json/read-json';
import type { Table } from '../core/exchange/table';
import { BadInput } from './bad-input';
import { placeOf, telling, textOf } from './read-bytes';

/** The rows of CSV, TSV, JSON or JSON Lines. Throws a BadInput. */
export function tableOf(path: string, bytes: Uint8Array): Table {
  const other = otherKind(bytes);
  if (other !== undefined) throw new BadInput(placeOf(path), other);
  const text = textOf(path, bytes);
  if (/\.(jsonl|ndjson)$/i.test(path)) return telling(path, () => jsonLinesTable(text));
  const isJson = /\.json$/i.test(path) || (path === '-' && /^\s*\[/.test(text));
  const table = isJson ? readJson(text) : readCsv(text, separatorOf(path));
  if ('message' in table) throw new BadInput([placeOf(path), table.place].filter(Boolean).join(', '), table.message);
  return table;
}

export const separatorOf = (path: string): Separator => (/\.(tsv|tab)$/i.test(path) ? '\t' : ',');
