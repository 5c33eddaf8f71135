import type { Queryable } from '../../database';
import type { Person } from '../person/find-person';

const NOTED_MS = 60_000;

/** The person of a session that is not over; notes that it was used, once a minute. */
export async function findSession(sql: Queryable, tokenHash: Buffer): Promise<Person | undefined> {
  const [row] = await sql<(Person & { readonly used_at: Date })[]>`select person.id, email, name, used_at from person_session
    join person on person.id = person_id where token_hash = ${tokenHash} and ends_at > now()`;
  if (!row) return undefined;
  const { used_at, ...person } = row;
  if (Date.now() - used_at.getTime() > NOTED_MS) await sql`update person_session set used_at = now() where token_hash = ${tokenHash}`;
  return person;
}
