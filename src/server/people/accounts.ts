import { nanoid } from 'nanoid';
import { changeAccess } from '../access/change-access';
import type { Sql } from '../database';
import { Refusal } from '../refusal';
import { settings } from '../settings';
import { findLink } from '../sql/link';
import { findPerson, insertPerson, updatePerson, type Person } from '../sql/person';
import { deleteSessions, forgetDevices } from '../sql/session';
import { countedGuess, type Guesser } from './guesses';
import { hashPassword, isPassword } from './password';
import { hashToken } from './token';
import { isWeakPassword } from './weak-password';
import { refusalText } from '../../texts/refusal-text';

export interface NewAccount {
  readonly email: string;
  readonly name: string;
  readonly password: string;
  /** The token of an invitation that was sent to the address. */
  readonly invitation?: string | undefined;
}

const WEAK = refusalText('passwordOneThoseGuessed');

/**
 * Makes an account, unless the address has one: the answer is the same in both cases, so that nobody learns who has an
 * account. Throws a Refusal where the password is weak, or where this person may not make one.
 */
export async function signUp(sql: Sql, { email, name, password, invitation }: NewAccount): Promise<void> {
  await requireSignUp(sql, email, invitation);
  if (isWeakPassword(password, [email, name])) throw new Refusal('bad-request', WEAK);
  // Also where there is one, so that both take as long.
  const kept = await hashPassword(password);
  await insertPerson(sql, { id: nanoid(12), email, name, password: kept });
}

async function requireSignUp(sql: Sql, email: string, invitation: string | undefined): Promise<void> {
  const { signUp: who } = settings();
  if (who === 'anybody') return;
  const link = who === 'invited' && invitation !== undefined ? await findLink(sql, hashToken(invitation)) : undefined;
  if (link?.invites?.toLowerCase() === email.toLowerCase()) return;
  throw new Refusal(
    'not-allowed',
    who === 'nobody' ? refusalText('signUpOffAsk') : refusalText('accountsMadeByInvitation'),
  );
}

/** Finds the person of an address and a password. A wrong address and a wrong password give the same Refusal. */
export async function checkSignIn(
  sql: Sql,
  { email, password }: { readonly email: string; readonly password: string },
  by: Guesser,
): Promise<Person> {
  const person = await findPerson(sql, email);
  const wasRight = await countedGuess(sql, { person: person?.id, email }, by);
  if (!(await isPassword(password, person?.password)) || !person)
    throw new Refusal('bad-request', refusalText('wrongEMailOr'));
  await wasRight();
  return person;
}

/** Changes the password, and ends every session. Throws a Refusal where the old one is wrong or the new one weak. */
export async function changePassword(
  sql: Sql,
  person: Person,
  { old, password, by }: { readonly old: string; readonly password: string; readonly by: Guesser },
): Promise<void> {
  const kept = (await findPerson(sql, person.email))?.password;
  // The demo's owner begins without one.
  if (kept !== null) {
    const wasRight = await countedGuess(sql, { person: person.id, email: person.email }, by);
    if (!(await isPassword(old, kept))) throw new Refusal('bad-request', refusalText('currentPasswordWrongNothing'));
    await wasRight();
  }
  if (isWeakPassword(password, [person.email, person.name])) throw new Refusal('bad-request', WEAK);
  await updatePerson(sql, person.id, { password: await hashPassword(password) });
  await forgetDevices(sql, person.id);
  await signOutEverywhere(sql, person);
}

/** Ends every session of a person, wherever it is. */
export async function signOutEverywhere(sql: Sql, person: Person): Promise<void> {
  await changeAccess(sql, async (tx) => {
    await deleteSessions(tx, person.id);
    return { changed: { person: person.id }, value: undefined };
  });
}
