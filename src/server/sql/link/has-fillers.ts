import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Whether anybody may come to a sheet as a filler, by a link or as a member. */
export async function hasFillers(sql: Queryable, sheet: SheetId): Promise<boolean> {
  const rows = await sql`
    select from sheet_link where sheet_id = ${sheet} and role = 'filler' and revoked_at is null
    union all select from sheet_member where sheet_id = ${sheet} and role = 'filler' limit 1`;
  return rows.length > 0;
}
