import type { Queryable } from '../database';

export interface Person {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  /** The region of numbers and dates (ISO 3166); null for that of the browser. */
  readonly region: string | null;
}

/** An account by its address, whatever its case, with the stored form of its password. */
export async function findPerson(
  sql: Queryable,
  email: string,
): Promise<(Person & { readonly password: string | null }) | undefined> {
  const [row] = await sql<(Person & { password: string | null })[]>`
    select id, email, name, region, password from person where lower(email) = lower(${email})`;
  return row;
}

/** Makes an account; false where the address has one already. */
export async function insertPerson(
  sql: Queryable,
  { id, email, name, password }: Omit<Person, 'region'> & { readonly password: string | null },
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

/** Sets the region of numbers and dates of an account; null for that of the browser. */
export async function setRegion(sql: Queryable, id: string, region: string | null): Promise<void> {
  await sql`update person set region = ${region} where id = ${id}`;
}
