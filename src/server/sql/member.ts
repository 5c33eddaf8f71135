import { itemAt } from '../../core/values/item-at';
import { SHEET_ROLES, type SheetRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { Member } from '../../protocol/sheet-sharing';
import type { Queryable } from '../database';

/** How many sheets a person owns. */
export async function countOwned(sql: Queryable, person: string): Promise<number> {
  const rows = await sql<
    { count: number }[]
  >`select count(*)::int as count from sheet_member where person_id = ${person} and role = 'owner'`;
  return itemAt(rows, 0).count;
}

/** Takes a person's role on a sheet away. */
export async function deleteMember(sql: Queryable, sheet: SheetId, person: string): Promise<void> {
  await sql`delete from sheet_member where sheet_id = ${sheet} and person_id = ${person}`;
}

/** The role of a person on a sheet. */
export async function findRole(sql: Queryable, sheet: SheetId, person: string): Promise<SheetRole | undefined> {
  const [row] = await sql<
    { role: SheetRole }[]
  >`select role from sheet_member where sheet_id = ${sheet} and person_id = ${person}`;
  return row?.role;
}

/** Gives a person a role on a sheet, instead of the one they had. */
export async function putMember(
  sql: Queryable,
  sheet: SheetId,
  { person, role }: { readonly person: string; readonly role: SheetRole },
): Promise<void> {
  await sql`insert into sheet_member (sheet_id, person_id, role) values (${sheet}, ${person}, ${role})
    on conflict (sheet_id, person_id) do update set role = excluded.role`;
}

/** Everybody with a role on a sheet, owners first. */
export const readMembers = async (sql: Queryable, sheet: SheetId): Promise<Member[]> => [
  ...(await sql<Member[]>`select person.id, name, email, role from sheet_member
    join person on person.id = person_id where sheet_id = ${sheet}
    order by array_position(${SHEET_ROLES}::text[], role), name, person.id`),
];
