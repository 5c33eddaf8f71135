import type { SheetRole } from '../../../core/sharing/role';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The role of a person on a sheet. */
export async function findRole(sql: Queryable, sheet: SheetId, person: string): Promise<SheetRole | undefined> {
  const [row] = await sql<{ role: SheetRole }[]>`select role from sheet_member where sheet_id = ${sheet} and person_id = ${person}`;
  return row?.role;
}
