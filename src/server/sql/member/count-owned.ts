import type { Queryable } from '../../database';

/** How many sheets a person owns. */
export async function countOwned(sql: Queryable, person: string): Promise<number> {
  const [row] = await sql<{ count: number }[]>`select count(*)::int as count from sheet_member where person_id = ${person} and role = 'owner'`;
  return row!.count;
}
