import type { Queryable } from '../database';

export interface Person {
  readonly id: string;
  readonly email: string;
  readonly name: string;
}

/** An account by its address, whatever its case, with the stored form of its password. */
export async function findPerson(
  sql: Queryable,
  email: string,
): Promise<(Person & { readonly password: string | null }) | undefined> {
  const [row] = await sql<(Person & { password: string | null })[]>`
    select id, email, name, password from person where lower(email) = lower(${email})`;
  return row;
}

/** Makes an account; false where the address has one already. */
export async function insertPerson(
  sql: Queryable,
  { id, email, name, password }: Person & { readonly password: string | null },
): Promise<boolean> {
  const { count } =
    await sql`insert into person (id, email, name, password) values (${id}, ${email}, ${name}, ${password}) on conflict do nothing`;
  return count > 0;
}

/** Gives an account another name or another password (see password.ts). */
export async function updatePerson(
  sql: Queryable,
  id: string,
  { name, password }: { readonly name?: string; readonly password?: string },
): Promise<void> {
  await sql`update person set name = coalesce(${name ?? null}, name), password = coalesce(${password ?? null}, password) where id = ${id}`;
}
