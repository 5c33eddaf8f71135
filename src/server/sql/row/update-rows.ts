import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { rowColumns } from './row-columns';

/** Writes rows that exist, whole. */
export async function updateRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  const { ids, keys, roles, cells, abouts } = rowColumns(rows);
  await sql`update sheet_row set key = fresh.key, role = fresh.role, cells = fresh.cells::jsonb, about = fresh.about::jsonb
    from unnest(${ids}::text[], ${keys}::text[], ${roles}::text[], ${cells}::text[], ${abouts}::text[]) as fresh (id, key, role, cells, about)
    where sheet_id = ${sheet} and sheet_row.id = fresh.id`;
}
