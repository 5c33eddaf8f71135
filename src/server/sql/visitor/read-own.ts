import type { Own } from '../../../core/sharing/role';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** What visitors of a sheet have for their own. Places of a link that has ended stay theirs, as its end can be moved; those of a revoked one are free. */
export async function readOwn(sql: Queryable, sheet: SheetId): Promise<Own[]> {
  const rows = await sql<{ own_fields: string[] | null; own_rows: string[] | null }[]>`
    select own_fields, own_rows from sheet_visitor visitor
    join sheet_link link on link.sheet_id = visitor.sheet_id and link.id = visitor.link_id
    where visitor.sheet_id = ${sheet} and link.revoked_at is null`;
  return rows.map(({ own_fields, own_rows }) => ({ fields: own_fields, rows: own_rows }));
}
