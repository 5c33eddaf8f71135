import type { StoredRow } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export async function insertRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  await sql`insert into sheet_row (sheet_id, id, key, role, cells)
    select ${sheet}, id, key, role, cells::jsonb
    from unnest(${rows.map((row) => row.id)}::text[], ${rows.map((row) => row.key)}::text[], ${rows.map((row) => row.role)}::text[],
      ${rows.map((row) => JSON.stringify(row.cells))}::text[]) as fresh (id, key, role, cells)`;
}
