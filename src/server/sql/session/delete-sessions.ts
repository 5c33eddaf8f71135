import type { Queryable } from '../../database';

/** Ends one session. */
export async function deleteSession(sql: Queryable, tokenHash: Buffer): Promise<void> {
  await sql`delete from person_session where token_hash = ${tokenHash}`;
}

/** Ends all sessions of a person. */
export async function deleteSessions(sql: Queryable, person: string): Promise<void> {
  await sql`delete from person_session where person_id = ${person}`;
}

/** Ends one session of a person by its id; false where there is none such. */
export async function deleteOwnSession(sql: Queryable, person: string, id: string): Promise<boolean> {
  const { count } = await sql`delete from person_session where person_id = ${person} and id = ${id}`;
  return count > 0;
}
