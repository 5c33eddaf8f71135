import type { Table } from '../values/table';
import { BadFile } from './bad-file';
import { otherKind } from './import/other-kind';
import { jsonLinesTable, jsonTable } from './json/read-json';
import { detectEncoding } from './text/detect-encoding';
import { isWorkbook, readWorkbook, type WorkbookInFile } from './workbook/read-workbook';

interface Recognised {
  readonly words: string;
  /** Extensions that give the format, for those that the first bytes alone do not give. */
  readonly endings?: RegExp;
  /** True for a file that begins with these bytes. */
  readonly begins?: (head: Uint8Array) => boolean;
}

/**
 * A format that a sheet can be made of. `gives` says what is made of a file of it: the lines of an archive, workbook
 * sheets, a table at once, or rows of text that are read as they stream in.
 */
export type ImportFormat = Recognised &
  (
    | { readonly gives: 'archive' }
    | { readonly gives: 'workbook'; readonly read: (bytes: Uint8Array) => WorkbookInFile }
    | { readonly gives: 'table'; readonly read: (text: string) => Table }
    | { readonly gives: 'rows' }
  );

const beginsWithText =
  (pattern: RegExp) =>
  (head: Uint8Array): boolean =>
    pattern.test(new TextDecoder(detectEncoding(head).encoding).decode(head));

/** The formats that are read, in the order in which they are recognised. */
export const IMPORT_FORMATS = {
  archive: { words: 'Archive', gives: 'archive', begins: (head) => head[0] === 0x1f && head[1] === 0x8b },
  workbook: { words: 'Workbook', gives: 'workbook', begins: isWorkbook, read: readWorkbook },
  jsonLines: {
    words: 'JSON Lines',
    gives: 'table',
    endings: /\.(jsonl|ndjson)$/i,
    begins: beginsWithText(/^\ufeff?\s*\{/),
    read: jsonLinesTable,
  },
  json: {
    words: 'JSON',
    gives: 'table',
    endings: /\.json$/i,
    begins: beginsWithText(/^\ufeff?\s*\[\s*[[{\]]/),
    read: jsonTable,
  },
  csv: { words: 'CSV', gives: 'rows' },
} as const satisfies Record<string, ImportFormat>;

const FORMATS: readonly ImportFormat[] = Object.values(IMPORT_FORMATS);

/** The format of a file whose first bytes tell it, whatever its name; undefined for text. Throws a BadFile for others. */
export function binaryFormat(head: Uint8Array): ImportFormat | undefined {
  const found = FORMATS.find(({ endings, begins }) => endings === undefined && begins?.(head));
  const other = found ? undefined : otherKind(head);
  if (other !== undefined) throw new BadFile(other);
  return found;
}

/** The format of a text file by its name; undefined where its extension gives none. */
export const namedFormat = (name: string): ImportFormat | undefined =>
  FORMATS.find(({ endings }) => endings?.test(name));

/** The format of a file: by its first bytes, then by its name, then by how its text begins. Throws a BadFile. */
export const formatOf = (head: Uint8Array, name: string): ImportFormat =>
  binaryFormat(head) ?? namedFormat(name) ?? FORMATS.find(({ begins }) => begins?.(head)) ?? IMPORT_FORMATS.csv;
