import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Writes the cells of rows that exist. */
export async function updateCells(sql: Queryable, sheet: SheetId, rows: readonly Pick<StoredRow, 'id' | 'cells'>[]): Promise<void> {
  await sql`update sheet_row set cells = fresh.cells::jsonb
    from unnest(${rows.map((row) => row.id)}::text[], ${rows.map((row) => JSON.stringify(row.cells))}::text[]) as fresh (id, cells)
    where sheet_id = ${sheet} and sheet_row.id = fresh.id`;
}
