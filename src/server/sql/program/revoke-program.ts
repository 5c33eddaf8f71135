import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Takes a program's token back; false where there is none such. */
export async function revokeProgram(sql: Queryable, sheet: SheetId, id: string): Promise<boolean> {
  const { count } = await sql`update sheet_program set revoked_at = now() where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}
