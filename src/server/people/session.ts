import type { Queryable, Sql } from '../database';
import { findSession } from '../sql/session/find-session';
import { insertSession } from '../sql/session/insert-session';
import type { Person } from '../sql/person/find-person';
import { hashToken, newToken } from './token';

/** How long a sign-in lasts. */
export const SESSION_DAYS = 30;

/** Signs a person in. Returns the token that goes into the cookie. */
export async function beginSession(sql: Queryable, person: string): Promise<string> {
  const token = newToken();
  await insertSession(sql, { tokenHash: hashToken(token), person, days: SESSION_DAYS });
  return token;
}

/** Who is signed in by a token, if anybody. */
export const personOfToken = (sql: Sql, token: string | undefined): Promise<Person | undefined> =>
  token ? findSession(sql, hashToken(token)) : Promise.resolve(undefined);
