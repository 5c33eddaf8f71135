import type { Queryable } from '../../database';
import type { Person } from './find-person';

/** Makes an account; false where the address has one already. */
export async function insertPerson(sql: Queryable, { id, email, name, password }: Person & { readonly password: string | null }): Promise<boolean> {
  const { count } = await sql`insert into person (id, email, name, password) values (${id}, ${email}, ${name}, ${password}) on conflict do nothing`;
  return count > 0;
}
