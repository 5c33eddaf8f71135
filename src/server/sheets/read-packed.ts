import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { SheetId } from '../../core/sheet/ids';
import { SheetPacker } from '../../protocol/packed-sheet';
import type { Sql } from '../database';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { readRowsInBatches } from '../sql/row';
import { readRules } from '../sql/rule';
import { findSheet } from '../sql/sheet';

import { findSnapshot, keepSnapshot } from '../sql/snapshot';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

const compress = promisify(gzip);

/** A sheet with this many rows keeps a packed copy; one that is this many changes old is made again. */
const KEEP_FROM_ROWS = 2000;
const KEEP_FOR_CHANGES = 200;

/** The packed sheet (see packed-sheet.ts), compressed with gzip, at some sequence not far behind the head. */
export async function readPacked(sql: Sql, id: SheetId): Promise<Uint8Array<ArrayBuffer>> {
  const head = await findSheet(sql, id);
  if (!head) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const kept = await findSnapshot(sql, id);
  if (kept && head.head - kept.sequence <= KEEP_FOR_CHANGES) return kept.packed;
  const made = await packFresh(sql, id);
  if (made.rows >= KEEP_FROM_ROWS) await keepSnapshot(sql, id, made);
  return made.packed;
}

/** Reads everything as of one moment. */
async function packFresh(
  sql: Sql,
  id: SheetId,
): Promise<{ sequence: number; rows: number; packed: Uint8Array<ArrayBuffer> }> {
  const { packer, sequence, rows } = await sql.begin('isolation level repeatable read read only', async (tx) => {
    const sheet = await findSheet(tx, id);
    if (!sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    const { head, createdAt: _, ...about } = sheet;
    const packer = new SheetPacker({
      ...about,
      sequence: head,
      fields: await readFields(tx, id),
      rules: await readRules(tx, id),
      parts: await readParts(tx, id),
    });
    let rows = 0;
    await readRowsInBatches(tx, id, (batch) => {
      rows += batch.length;
      batch.forEach((row) => packer.add(row));
    });
    return { packer, sequence: head, rows };
  });
  return { sequence, rows, packed: await compress(packer.pack(), { level: 3 }) };
}
