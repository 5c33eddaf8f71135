import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { plainRow, type RowRow } from './row-columns';

const ROWS_AT_ONCE = 5000;

/** Every row from top to bottom, batch by batch as they are asked for. */
export async function* rowsInBatches(sql: Queryable, sheet: SheetId): AsyncGenerator<readonly StoredRow[]> {
  const cursor = sql<RowRow[]>`select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} order by key, id`.cursor(ROWS_AT_ONCE);
  for await (const rows of cursor) yield rows.map(plainRow);
}

/** Every row from top to bottom, in batches, so that a large sheet is never held twice. */
export async function readRowsInBatches(sql: Queryable, sheet: SheetId, take: (rows: readonly StoredRow[]) => void): Promise<void> {
  for await (const rows of rowsInBatches(sql, sheet)) take(rows);
}
