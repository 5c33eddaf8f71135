import { gunzipSync } from 'node:zlib';
import { lossLine } from '../core/exchange/workbook/losses';
import { codeOf } from '../core/values/error-message';
import type { ArchivedHead } from '../core/exchange/archive/archive-lines';
import { BadFile } from '../core/exchange/bad-file';
import { TableRows } from '../core/exchange/import/table-rows';
import { LIMITS } from '../core/exchange/limits';
import type { SheetContents } from '../core/exchange/sheet-contents';
import type { Table } from '../core/values/table';
import { binaryFormat } from '../core/exchange/import-formats';
import type { WorkbookInFile } from '../core/exchange/workbook/read-workbook';
import { headerOf, workbookContents } from '../core/exchange/workbook/workbook-contents';
import type { DataOptions } from '../core/rules/evaluate/evaluate-data';
import type { StoredRow } from '../core/sheet/change';
import { ArchiveReader } from '../protocol/archive-reader';
import { nameOf, readBytes, telling } from './read-bytes';
import { tableOf, type TextForm } from './read-table';

export interface FileOptions extends DataOptions, TextForm {
  /** Which sheet of a workbook, by name; the first that holds something where absent. */
  readonly sheet?: string;
}

/** All that a file says of a sheet. */
export interface FileContents {
  readonly contents: SheetContents & Pick<ArchivedHead, 'createdAt'>;
  /** The lines of an archive's history. */
  readonly changes: readonly string[];
  /** The parts of the file that a sheet cannot hold, in words. */
  readonly losses: readonly string[];
}

/** Size of an archive, unpacked, in bytes. */
const MAX_UNPACKED = 4 * LIMITS.unpackedBytes;

/** Whether a file holds more than a table of texts. Throws a BadInput where it holds none. */
export const isRich = (path: string, bytes: Uint8Array): boolean =>
  telling(path, () => binaryFormat(bytes)) !== undefined;

/**
 * Reads CSV, TSV, JSON, JSON Lines, a workbook or an archive. Throws a BadInput that names the file and the place in
 * it.
 */
export function readContents(path: string, options: FileOptions): FileContents {
  const bytes = readBytes(path);
  const format = telling(path, () => binaryFormat(bytes));
  if (format?.gives === 'workbook') return telling(path, () => contentsOfWorkbook(format.read(bytes), options));
  if (format?.gives === 'archive') return telling(path, () => contentsOfArchive(bytes));
  return {
    contents: contentsOfTable(tableOf(path, bytes, options), { ...options, name: nameOf(path) }),
    changes: [],
    losses: [],
  };
}

function contentsOfWorkbook({ sheets }: WorkbookInFile, options: FileOptions): FileContents {
  const named = options.sheet === undefined ? sheets : sheets.filter(({ name }) => name === options.sheet);
  const found = named.map((each) => each.read()).find(({ rowCount }) => rowCount > 0);
  if (!found)
    throw new BadFile(
      options.sheet === undefined
        ? 'there is nothing in any of its sheets'
        : `there is no sheet "${options.sheet}" with something in it; there is ${sheets.map(({ name }) => name).join(', ')}`,
    );
  return {
    contents: workbookContents(found, { name: found.name, header: options.header ? headerOf(found) : null }),
    changes: [],
    losses: found.losses.map(lossLine),
  };
}

function contentsOfArchive(bytes: Uint8Array): FileContents {
  const reader = new ArchiveReader();
  let head: ArchivedHead | undefined;
  const rows: StoredRow[] = [];
  const changes: string[] = [];
  for (const line of unpacked(bytes).split('\n')) {
    if (line === '') continue;
    const item = reader.take(line);
    if (item && 'head' in item) head = item.head;
    else if (item && 'row' in item) rows.push(item.row);
    else if (item) changes.push(line);
  }
  reader.end();
  if (!head) throw new BadFile('there is nothing in it');
  return { contents: { ...head, rows }, changes, losses: [] };
}

function unpacked(bytes: Uint8Array): string {
  try {
    return gunzipSync(bytes, { maxOutputLength: MAX_UNPACKED }).toString('utf8');
  } catch (error) {
    if (codeOf(error) === 'ERR_BUFFER_TOO_LARGE')
      throw new BadFile(`unpacked, it comes to more than ${MAX_UNPACKED} bytes`);
    throw new BadFile('it cannot be unpacked: it is cut off or damaged');
  }
}

/** Text files say nothing of widths. */
const WIDTH_PX = 120;

function contentsOfTable(
  { rows, width }: Table,
  { name, header, dates, zone, firstWeekday }: FileOptions & { readonly name: string },
): SheetContents {
  const table = new TableRows({
    reading: {
      decimal: '.',
      dates: dates ?? null,
      formulas: true,
      header: header ? 0 : null,
      as: Array.from({ length: width }, () => 'values'),
    },
    rowCount: rows.length,
    labels: header ? (rows[0] ?? []) : [],
    widthsPx: Array.from({ length: width }, () => WIDTH_PX),
  });
  return {
    name,
    settings: {
      ...(dates ? { dates } : {}),
      ...(zone ? { zone } : {}),
      ...(firstWeekday === undefined ? {} : { firstWeekday }),
    },
    fields: table.fields,
    rows: rows.map((cells) => table.next(cells)),
    rules: [],
  };
}
