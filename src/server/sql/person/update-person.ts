import type { Queryable } from '../../database';

/** Gives an account another name or another password (see password.ts). */
export async function updatePerson(
  sql: Queryable,
  id: string,
  { name, password }: { readonly name?: string; readonly password?: string },
): Promise<void> {
  await sql`update person set name = coalesce(${name ?? null}, name), password = coalesce(${password ?? null}, password) where id = ${id}`;
}
