import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { rowColumns } from './row-columns';

export async function insertRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  const { ids, keys, roles, cells, abouts } = rowColumns(rows);
  await sql`insert into sheet_row (sheet_id, id, key, role, cells, about)
    select ${sheet}, id, key, role, cells::jsonb, about::jsonb
    from unnest(${ids}::text[], ${keys}::text[], ${roles}::text[], ${cells}::text[], ${abouts}::text[]) as fresh (id, key, role, cells, about)`;
}
