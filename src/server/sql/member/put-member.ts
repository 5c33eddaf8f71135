import type { SheetRole } from '../../../core/sharing/role';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Gives a person a role on a sheet, in the place of the one they had. */
export async function putMember(
  sql: Queryable,
  sheet: SheetId,
  { person, role }: { readonly person: string; readonly role: SheetRole },
): Promise<void> {
  await sql`insert into sheet_member (sheet_id, person_id, role) values (${sheet}, ${person}, ${role})
    on conflict (sheet_id, person_id) do update set role = excluded.role`;
}
