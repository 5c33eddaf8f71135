import type { SheetId } from '../../../core/sheet/ids';
import type { Member } from '../../../protocol/sheet-sharing';
import type { Queryable } from '../../database';

/** Everybody with a role on a sheet, owners first. */
export const readMembers = async (sql: Queryable, sheet: SheetId): Promise<Member[]> => [
  ...(await sql<Member[]>`select person.id, name, email, role from sheet_member
    join person on person.id = person_id where sheet_id = ${sheet}
    order by array_position(array['owner', 'editor', 'filler', 'viewer'], role), name, person.id`),
];
