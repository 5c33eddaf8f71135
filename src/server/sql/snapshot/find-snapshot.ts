import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface StoredSnapshot {
  readonly sequence: number;
  readonly packed: Uint8Array;
}

export async function findSnapshot(sql: Queryable, sheet: SheetId): Promise<StoredSnapshot | undefined> {
  const [row] = await sql<{ sequence: string; packed: Uint8Array }[]>`select sequence, packed from sheet_snapshot where sheet_id = ${sheet}`;
  return row && { sequence: Number(row.sequence), packed: row.packed };
}
