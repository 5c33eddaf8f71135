import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { plainRow, type RowRow } from './row-columns';

/** Every row from top to bottom, in batches, so that a large sheet is never held twice. */
export async function readRowsInBatches(sql: Queryable, sheet: SheetId, take: (rows: readonly StoredRow[]) => void): Promise<void> {
  await sql<RowRow[]>`select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} order by key, id`.cursor(5000, (rows) =>
    take(rows.map(plainRow)),
  );
}
