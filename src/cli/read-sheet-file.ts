import { readFileSync } from 'node:fs';
import { BadFile } from '../core/exchange/bad-file';
import { readCsv } from '../core/exchange/csv/read-csv';
import type { Separator } from '../core/exchange/csv/csv-rows';
import { jsonLinesTable, readJson } from '../core/exchange/json/read-json';
import type { Table } from '../core/exchange/table';
import { readWorkbook } from '../core/exchange/workbook/read-workbook';
import { headerOf, workbookContents } from '../core/exchange/workbook/workbook-contents';
import { isZip } from '../core/exchange/zip/read-zip';
import type { Look } from '../core/looks/look';
import type { DataOptions } from '../core/rules/evaluate-data';
import type { Rule } from '../core/rules/rule';
import { Sheet } from '../core/sheet/sheet';
import { sheetFromTable } from '../core/sheet/sheet-from-table';
import { showReferences } from '../core/formula/keep-references';
import { BadInput } from './bad-input';

/** A data file as a sheet; a workbook brings rules of its own. */
export interface SheetFile {
  readonly sheet: Sheet;
  readonly rules: readonly Rule[];
  readonly looks: Readonly<Record<string, Look>>;
  /** What the file holds and the sheet does not, in words. */
  readonly losses: readonly string[];
}

export interface FileOptions extends DataOptions {
  /** Which sheet of a workbook, by name; the first that holds something where absent. */
  readonly sheet?: string;
}

export const placeOf = (path: string): string => (path === '-' ? 'standard input' : path);

/** Reads CSV, TSV, JSON, JSON Lines or a workbook. Throws a BadInput that names the file and the place in it. */
export function readSheetFile(path: string, options: FileOptions): SheetFile {
  const bytes = readBytes(path);
  if (!isZip(bytes)) return { sheet: sheetFromTable(tableOf(path, bytes), options), rules: [], looks: {}, losses: [] };
  return telling(path, () => {
    const { sheets } = readWorkbook(bytes);
    const named = options.sheet === undefined ? sheets : sheets.filter(({ name }) => name === options.sheet);
    const found = named.map((each) => each.read()).find(({ rowCount }) => rowCount > 0);
    if (!found)
      throw new BadFile(
        options.sheet === undefined
          ? 'there is nothing in any of its sheets'
          : `there is no sheet "${options.sheet}" with something in it; there is ${sheets.map(({ name }) => name).join(', ')}`,
      );
    const { fields, rows, rules, parts = [] } = workbookContents(found, { name: found.name, header: options.header ? headerOf(found) : null });
    const made = new Sheet(fields, options);
    if (rows.length) made.apply({ kind: 'insert-rows', rows });
    made.parts.put(parts);
    made.rules.put(rules);
    return { sheet: made, rules: rules.map(({ rule }) => rule), looks: {}, losses: found.losses };
  });
}

/** The same as rows of texts, as they would be typed; formulas of a workbook with letters and numbers. */
export function readTable(path: string, options: FileOptions): Table {
  const bytes = readBytes(path);
  if (!isZip(bytes)) return tableOf(path, bytes);
  const { sheet } = readSheetFile(path, options);
  const rows = sheet.order.map((slot) => sheet.columns.map((store) => showReferences(store.inputAt(slot), sheet, slot)));
  return { rows, width: sheet.fields.length };
}

function tableOf(path: string, bytes: Uint8Array): Table {
  const text = decode(path, bytes);
  if (/\.(jsonl|ndjson)$/i.test(path)) return telling(path, () => jsonLinesTable(text));
  const isJson = /\.json$/i.test(path) || (path === '-' && /^\s*\[/.test(text));
  const table = isJson ? readJson(text) : readCsv(text, separatorOf(path));
  if ('message' in table) throw new BadInput([placeOf(path), table.place].filter(Boolean).join(', '), table.message);
  return table;
}

export const separatorOf = (path: string): Separator => (/\.(tsv|tab)$/i.test(path) ? '\t' : ',');

function telling<T>(path: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof BadFile)) throw error;
    throw new BadInput([placeOf(path), error.place].filter(Boolean).join(', '), error.message, { cause: error });
  }
}

/** The text of a file. Throws a BadInput. */
export const readText = (path: string): string => decode(path, readBytes(path));

function decode(path: string, bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    throw new BadInput(placeOf(path), 'it is not UTF-8 text', { cause: error });
  }
}

/** Standard input can be read once. */
let standardInput: Uint8Array | undefined;

function readBytes(path: string): Uint8Array {
  try {
    if (path === '-') return (standardInput ??= new Uint8Array(readFileSync(0)));
    return new Uint8Array(readFileSync(path));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'this is a folder; expected a file'
          : code === 'EACCES'
            ? 'it may not be read'
            : `it cannot be read (${code})`;
    throw new BadInput(path, why, { cause: error });
  }
}
