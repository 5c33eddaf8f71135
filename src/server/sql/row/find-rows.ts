import type { StoredRow } from '../../../core/sheet/change';
import type { RowId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { plainRow, type RowRow } from './row-columns';

/** The rows with these ids that exist, in no order. */
export async function findRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<StoredRow[]> {
  const rows = await sql<
    RowRow[]
  >`select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
  return rows.map(plainRow);
}
