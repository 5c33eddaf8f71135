import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Gives a sheet another name; false where there is no such sheet. */
export async function renameSheet(sql: Queryable, id: SheetId, name: string): Promise<boolean> {
  const { count } = await sql`update sheet set name = ${name}, changed_at = now() where id = ${id}`;
  return count > 0;
}
