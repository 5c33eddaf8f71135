import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { plainRow, type RowRow } from './row-columns';

/** The first header row, or undefined where there is none. */
export async function findHeader(sql: Queryable, sheet: SheetId): Promise<StoredRow | undefined> {
  const [row] = await sql<RowRow[]>`
    select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} and role = 'header' order by key, id limit 1`;
  return row && plainRow(row);
}
