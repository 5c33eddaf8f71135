import type { Queryable } from '../../database';

/** Keeps a session, and drops those that are over. */
export async function insertSession(
  sql: Queryable,
  { tokenHash, person, days }: { readonly tokenHash: Buffer; readonly person: string; readonly days: number },
): Promise<void> {
  await sql`delete from person_session where ends_at < now()`;
  await sql`insert into person_session (token_hash, person_id, ends_at) values (${tokenHash}, ${person}, now() + make_interval(days => ${days}))`;
}
