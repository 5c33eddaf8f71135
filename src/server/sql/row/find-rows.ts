import type { StoredRow } from '../../../core/sheet/change';
import type { RowId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The rows with these ids that exist, in no order. */
export async function findRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<StoredRow[]> {
  return sql<StoredRow[]>`select id, key, role, cells from sheet_row where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
