import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Takes a person's role on a sheet away. */
export async function deleteMember(sql: Queryable, sheet: SheetId, person: string): Promise<void> {
  await sql`delete from sheet_member where sheet_id = ${sheet} and person_id = ${person}`;
}
