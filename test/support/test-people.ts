import type { Sql } from '../../src/server/database';
import { signUp } from '../../src/server/people/accounts';
import { beginSession, type Browser } from '../../src/server/people/session';
import { findPerson } from '../../src/server/sql/person';

/** The caller, unless a test says otherwise. */
export const BY = { client: '192.0.2.7', device: undefined };

let made = 0;

/** Makes accounts and sessions in a test database. Every account has the password "marigold ferry". */
export function peopleOf(sql: Sql) {
  const sessionOf = async (person: string, browser: Partial<Browser> = {}) =>
    (await beginSession(sql, person, { ...BY, session: undefined, agent: 'test', ...browser })).session;
  const account = async (name: string) => {
    const email = `${name}${++made}@wrenfold.example`;
    await signUp(sql, { email, name, password: 'marigold ferry' });
    const person = (await findPerson(sql, email))!;
    return { session: await sessionOf(person.id), person };
  };
  return { sessionOf, account };
}
