import { nanoid } from 'nanoid';
import type { Sql } from '../database';
import { Refusal } from '../refusal';
import { findPerson, type Person } from '../sql/person/find-person';
import { insertPerson } from '../sql/person/insert-person';
import { updatePerson } from '../sql/person/update-person';
import { countFailures, noteFailure } from '../sql/session/failed-sign-ins';
import { deleteSessions } from '../sql/session/delete-sessions';
import { tellAccessChanged } from '../access/access-channel';
import { hashPassword, isPassword } from './password';
import { beginSession } from './session';
import { hashToken } from './token';

/** Failures within a quarter of an hour after which an address has to wait. */
const MOST_FAILURES = 10;

export interface NewAccount {
  readonly email: string;
  readonly name: string;
  readonly password: string;
}

/** Makes an account and signs in; the token of the session. Throws a Refusal where the address has one. */
export async function signUp(sql: Sql, { email, name, password }: NewAccount): Promise<string> {
  const id = nanoid(12);
  if (!(await insertPerson(sql, { id, email, name, password: await hashPassword(password) })))
    throw new Refusal('bad-request', 'This address has an account already. Sign in with it instead.');
  return beginSession(sql, id);
}

/** Signs in; the token of the session. Wrong address and wrong password are told alike. */
export async function signIn(sql: Sql, { email, password }: { readonly email: string; readonly password: string }): Promise<string> {
  const emailHash = hashToken(email.toLowerCase());
  if ((await countFailures(sql, emailHash)) >= MOST_FAILURES)
    throw new Refusal('too-often', 'Signing in has failed too often with this address. Wait a quarter of an hour, then try again.');
  const person = await findPerson(sql, email);
  if (!(await isPassword(password, person?.password))) {
    await noteFailure(sql, emailHash);
    throw new Refusal('bad-request', 'This address and this password do not go together. Check both, or make an account.');
  }
  return beginSession(sql, person!.id);
}

/** Changes the password, ends every session, and signs in anew. Throws a Refusal where the old one is wrong. */
export async function changePassword(
  sql: Sql,
  person: Person,
  { old, password }: { readonly old: string; readonly password: string },
): Promise<string> {
  const kept = (await findPerson(sql, person.email))?.password;
  // The demo's owner begins without one.
  if (kept !== null && !(await isPassword(old, kept))) throw new Refusal('bad-request', 'The present password is another. Nothing was changed.');
  await updatePerson(sql, person.id, { password: await hashPassword(password) });
  await signOutEverywhere(sql, person);
  return beginSession(sql, person.id);
}

/** Ends every session of a person, wherever it is. */
export async function signOutEverywhere(sql: Sql, person: Person): Promise<void> {
  await deleteSessions(sql, person.id);
  await tellAccessChanged(sql);
}
