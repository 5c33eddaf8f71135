import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Every row from top to bottom, in batches, so that a large sheet is never held twice. */
export async function readRowsInBatches(sql: Queryable, sheet: SheetId, take: (rows: readonly StoredRow[]) => void): Promise<void> {
  await sql<StoredRow[]>`select id, key, role, cells from sheet_row where sheet_id = ${sheet} order by key, id`.cursor(5000, (rows) => take(rows));
}
