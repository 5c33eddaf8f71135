import { changeAccess } from '../access/change-access';
import type { Sql } from '../database';
import type { Person } from '../sql/person';
import { deleteSession, noteDevice, findSession, insertSession } from '../sql/session';
import { hashToken, newToken } from './token';

/** How long a sign-in lasts, and how long without being used. */
export const SESSION_DAYS = 30;
/** How long a browser is remembered in which somebody has signed in. */
export const DEVICE_DAYS = 400;

/** Where somebody signs in: the tokens that the browser has already, its address and what it calls itself. */
export interface Browser {
  readonly session: string | undefined;
  readonly device: string | undefined;
  readonly client: string;
  readonly agent: string;
}

/** Signs a person in, and ends the session that this browser had. Returns the tokens that go into its cookies. */
export async function beginSession(
  sql: Sql,
  person: string,
  { session, device = newToken(), client, agent }: Browser,
): Promise<{ readonly session: string; readonly device: string }> {
  if (session !== undefined) await endSessionOf(sql, session);
  const token = newToken();
  await insertSession(sql, {
    tokenHash: hashToken(token),
    person,
    days: SESSION_DAYS,
    client,
    agent: agent.slice(0, 300),
  });
  await noteDevice(sql, person, hashToken(device));
  return { session: token, device };
}

/** Ends the session of a token, if it is one. */
export const endSessionOf = (sql: Sql, token: string): Promise<void> =>
  changeAccess(sql, async (tx) => {
    const person = await deleteSession(tx, hashToken(token));
    return { changed: person === undefined ? null : { person }, value: undefined };
  });

/** The person who is signed in by a token, if any. */
export const personOfToken = (sql: Sql, token: string | undefined): Promise<Person | undefined> =>
  token ? findSession(sql, hashToken(token)) : Promise.resolve(undefined);
