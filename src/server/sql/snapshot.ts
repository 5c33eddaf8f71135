import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

export interface StoredSnapshot {
  readonly sequence: number;
  readonly packed: Uint8Array<ArrayBuffer>;
}

export async function findSnapshot(sql: Queryable, sheet: SheetId): Promise<StoredSnapshot | undefined> {
  const [row] = await sql<
    { sequence: string; packed: Uint8Array<ArrayBuffer> }[]
  >`select sequence, packed from packed_sheet where sheet_id = ${sheet}`;
  return row && { sequence: Number(row.sequence), packed: row.packed };
}

/** Stores a snapshot unless a later one is there. */
export async function keepSnapshot(
  sql: Queryable,
  sheet: SheetId,
  { sequence, packed }: StoredSnapshot,
): Promise<void> {
  await sql`insert into packed_sheet (sheet_id, sequence, packed) values (${sheet}, ${sequence}, ${packed})
    on conflict (sheet_id) do update set sequence = excluded.sequence, packed = excluded.packed
    where packed_sheet.sequence < excluded.sequence`;
}
