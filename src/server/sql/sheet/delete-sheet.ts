import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Removes a sheet with all that is in it; false where there is no such sheet. */
export async function deleteSheet(sql: Queryable, id: SheetId): Promise<boolean> {
  const { count } = await sql`delete from sheet where id = ${id}`;
  return count > 0;
}
