import type { Queryable } from '../../database';

export interface Person {
  readonly id: string;
  readonly email: string;
  readonly name: string;
}

/** An account by its address, whatever its case, with what is kept of its password. */
export async function findPerson(sql: Queryable, email: string): Promise<(Person & { readonly password: string | null }) | undefined> {
  const [row] = await sql<(Person & { password: string | null })[]>`
    select id, email, name, password from person where lower(email) = lower(${email})`;
  return row;
}
