import type { Queryable } from '../../database';
import type { Person } from '../person/find-person';

/** The person of a session that is not over. */
export async function findSession(sql: Queryable, tokenHash: Buffer): Promise<Person | undefined> {
  const [row] = await sql<Person[]>`select person.id, email, name from person_session
    join person on person.id = person_id where token_hash = ${tokenHash} and ends_at > now()`;
  return row;
}
