import type { Queryable } from '../../database';

/** Whether a person has signed in before in the browser that has this token. */
export async function isKnownDevice(sql: Queryable, person: string, tokenHash: Buffer): Promise<boolean> {
  const { count } = await sql`update person_device set used_at = now() where token_hash = ${tokenHash} and person_id = ${person}`;
  return count > 0;
}

/** Remembers a browser, and forgets those that were not used for long. */
export async function noteDevice(sql: Queryable, person: string, tokenHash: Buffer): Promise<void> {
  await sql`delete from person_device where used_at < now() - interval '400 days'`;
  await sql`insert into person_device (token_hash, person_id) values (${tokenHash}, ${person}) on conflict (token_hash) do update set person_id = excluded.person_id, used_at = now()`;
}

/** Forgets all browsers of a person. */
export async function forgetDevices(sql: Queryable, person: string): Promise<void> {
  await sql`delete from person_device where person_id = ${person}`;
}
