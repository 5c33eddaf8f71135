import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { StoredRow } from '../../core/sheet/change';
import { byKey } from '../../core/sheet/compare-keys';
import type { SheetId } from '../../core/sheet/ids';
import { SheetPacker, type PackedHead } from '../../protocol/packed/packed-sheet';
import { longWork, type Sql, type Transaction } from '../database';
import { readMuch } from '../replicas';
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

/**
 * The packed sheet (see packed-sheet.ts), compressed with gzip, at some sequence not far behind the head. A copy of a
 * large one is kept by the connections `keeping`, where the others only read.
 */
export async function readPacked(sql: Sql, id: SheetId, keeping = sql): Promise<Uint8Array<ArrayBuffer>> {
  const head = await findSheet(sql, id);
  if (!head) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const kept = await findSnapshot(sql, id);
  if (kept && head.head - kept.sequence <= KEEP_FOR_CHANGES) return kept.packed;
  const made = await packFresh(sql, id);
  if (made.rows >= KEEP_FROM_ROWS) await keepSnapshot(keeping, id, made);
  return made.packed;
}

/** The same for who opens the sheet. */
export const packedForReaders = (id: SheetId): Promise<Uint8Array<ArrayBuffer>> =>
  readMuch(longWork(), (sql) => readPacked(sql, id, longWork()));

/** Reads everything as of one moment. */
async function packFresh(
  sql: Sql,
  id: SheetId,
): Promise<{ sequence: number; rows: number; packed: Uint8Array<ArrayBuffer> }> {
  const { packer, rows } = await sql.begin('isolation level repeatable read read only', async (tx) => {
    const packer = await beginPacking(tx, id);
    let rows = 0;
    await readRowsInBatches(tx, id, (batch) => {
      rows += batch.length;
      batch.forEach((row) => packer.add(row));
    });
    return { packer, rows };
  });
  return { sequence: packer.sequence, rows, packed: await compress(packer.pack(), { level: 3 }) };
}

/** What packs a sheet of the database, with all of it but the rows. Throws a Refusal where there is no such sheet. */
export async function beginPacking(
  tx: Transaction,
  id: SheetId,
  more: Pick<PackedHead, 'linked'> = {},
): Promise<SheetPacker> {
  const sheet = await findSheet(tx, id);
  if (!sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const { head, createdAt: _, ...about } = sheet;
  return new SheetPacker({
    ...about,
    ...more,
    sequence: head,
    fields: await readFields(tx, id),
    rules: await readRules(tx, id),
    parts: await readParts(tx, id),
  });
}

/**
 * Packs a new sheet while its rows are written, so that nobody waits for it who opens it: reading ten million cells back
 * takes ten seconds. Gives up where rows come in another order than theirs.
 */
export class NewSheetPacker {
  private last: StoredRow | null = null;
  private rows = 0;

  private constructor(
    private readonly tx: Transaction,
    private readonly id: SheetId,
    private packer: SheetPacker | null,
  ) {}

  /** Once the sheet is there with everything but its rows. */
  static begin = async (tx: Transaction, id: SheetId): Promise<NewSheetPacker> =>
    new NewSheetPacker(tx, id, await beginPacking(tx, id));

  add(row: StoredRow): void {
    if (this.last && byKey(this.last, row) >= 0) this.packer = null;
    this.last = row;
    this.rows++;
    this.packer?.add(row);
  }

  /** Keeps the packed sheet where it is large enough to be kept. */
  async keep(): Promise<void> {
    if (!this.packer || this.rows < KEEP_FROM_ROWS) return;
    const packed = await compress(this.packer.pack(), { level: 3 });
    await keepSnapshot(this.tx, this.id, { sequence: this.packer.sequence, packed });
  }
}
