import type { Queryable } from '../../database';

/** Ends one session. */
export async function deleteSession(sql: Queryable, tokenHash: Buffer): Promise<void> {
  await sql`delete from person_session where token_hash = ${tokenHash}`;
}

/** Ends all sessions of a person. */
export async function deleteSessions(sql: Queryable, person: string): Promise<void> {
  await sql`delete from person_session where person_id = ${person}`;
}
