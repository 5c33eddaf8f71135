import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { nanoid } from 'nanoid';
import { inDigits } from '../../core/values/counted';
import { codeOf } from '../../core/values/error-message';
import type { ArchivedChange } from '../../core/exchange/archive/archive-lines';
import { BadFile } from '../../core/exchange/bad-file';
import { LIMITS } from '../../core/exchange/limits';
import type { StoredRow } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import { ArchiveReader } from '../../protocol/archive-reader';
import type { Sql, Transaction } from '../database';
import { Refusal } from '../refusal';
import { appendArchived } from '../sql/change';
import { insertRows } from '../sql/row';
import { moveHead } from '../sql/sheet';
import { fillSheet, ROWS_AT_ONCE } from './create-sheet';
import { NewSheetPacker } from './read-packed';
import { refusalText } from '../../texts/refusal-text';

/** Changes of a log that are written by one statement. */
const CHANGES_AT_ONCE = 100;
/** Size of an archive, unpacked, in bytes. */
const MAX_UNPACKED = 4 * LIMITS.unpackedBytes;

/**
 * Makes a sheet from an archive (see archive-lines.ts, packed with gzip) as it streams in, in one transaction: one that
 * stops or does not hold together leaves nothing behind. Holds some thousand rows at a time. Throws a Refusal.
 */
export async function bringInSheet(sql: Sql, packed: Readable, owner: string): Promise<SheetId> {
  // A failure on the way ends the pipeline, whose own error says no more than that it ended.
  let failed: unknown;
  const take = (unpacked: AsyncIterable<Buffer>) =>
    sql
      .begin((tx) => takeLines(tx, linesOf(unpacked), owner))
      .catch((error: unknown) => {
        failed = error;
        throw error;
      });
  try {
    return await pipeline(packed, createGunzip(), take);
  } catch (ended) {
    const error = failed ?? ended;
    if (error instanceof BadFile)
      throw new Refusal('bad-request', refusalText('fileCannotImportedTold', { told: error.told }));
    const code = codeOf(error) ?? '';
    if (code.startsWith('Z_')) throw new Refusal('bad-request', refusalText('fileCannotUnpackedCut'));
    if (code === TWICE) throw new Refusal('bad-request', refusalText('fileCannotImportedTwo'));
    throw error;
  }
}

/** PostgreSQL's code for a key that is there already. */
const TWICE = '23505';

async function takeLines(tx: Transaction, lines: AsyncIterable<string>, owner: string): Promise<SheetId> {
  const id = nanoid(12);
  const reader = new ArchiveReader();
  const { counts } = reader;
  let packing: NewSheetPacker | null = null;
  let logFrom = 0;
  let rows: StoredRow[] = [];
  let changes: ArchivedChange[] = [];
  // The database writes some rows while the next ones are read.
  let writing: Promise<unknown> = Promise.resolve();
  const putRows = async () => {
    await writing;
    if (rows.length === 0) return;
    writing = insertRows(tx, id, rows);
    // Where reading fails meanwhile, that is what is said.
    writing.catch(() => {});
    rows = [];
  };
  const putChanges = async () => {
    if (changes.length) await appendArchived(tx, id, { first: logFrom + counts.changes - changes.length + 1, changes });
    changes = [];
  };
  for await (const text of lines) {
    const item = reader.take(text);
    if (!item) continue;
    if ('head' in item) {
      logFrom = item.head.logFrom ?? 0;
      await fillSheet(tx, id, { ...item.head, rows: [], owner });
      packing = await NewSheetPacker.begin(tx, id);
    } else if ('row' in item) {
      packing?.add(item.row);
      if (rows.push(item.row) === ROWS_AT_ONCE) await putRows();
    } else if (changes.push(item.change) === CHANGES_AT_ONCE) await putChanges();
  }
  reader.end();
  await putRows();
  await writing;
  await putChanges();
  if (logFrom + counts.changes > 0) await moveHead(tx, id, logFrom + counts.changes);
  else await packing?.keep();
  return id;
}

/** The lines of UTF-8 text as it streams in. Throws a BadFile where it is too long. */
async function* linesOf(unpacked: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let passed = 0;
  // The pieces of a line, joined once it is complete: scanning a long line again with each piece would take long.
  let begun: string[] = [];
  let length = 0;
  for await (const chunk of unpacked) {
    passed += chunk.length;
    if (passed > MAX_UNPACKED) throw new BadFile(`unpacked, it comes to more than ${inDigits(MAX_UNPACKED)} bytes`);
    const [first = '', ...more] = decoder.decode(chunk, { stream: true }).split('\n');
    begun.push(first);
    length += first.length;
    if (length > LIMITS.line) throw new BadFile(`a line has more than ${inDigits(LIMITS.line)} characters`);
    const rest = more.pop();
    if (rest === undefined) continue;
    yield begun.join('');
    yield* more;
    begun = [rest];
    length = rest.length;
  }
  const last = begun.join('');
  if (last) yield last;
}
