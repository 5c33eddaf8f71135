import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import type { StoredSnapshot } from './find-snapshot';

/** Keeps a snapshot unless a later one is there. */
export async function keepSnapshot(sql: Queryable, sheet: SheetId, { sequence, packed }: StoredSnapshot): Promise<void> {
  await sql`insert into sheet_snapshot (sheet_id, sequence, packed) values (${sheet}, ${sequence}, ${packed})
    on conflict (sheet_id) do update set sequence = excluded.sequence, packed = excluded.packed
    where sheet_snapshot.sequence < excluded.sequence`;
}
