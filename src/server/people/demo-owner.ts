import type { Queryable, Sql } from '../database';
import { Refusal } from '../refusal';
import { findPerson } from '../sql/person/find-person';
import { insertPerson } from '../sql/person/insert-person';
import { beginSession } from './session';

/** Owns the sheets of the demo, and signs in by one click until they choose a password. */
export const DEMO_OWNER = { id: 'demo-owner', email: 'mara@wrenfold.example', name: 'Mara Quillfeather' } as const;

/** Makes the account, once. */
export const makeDemoOwner = (sql: Queryable): Promise<boolean> => insertPerson(sql, { ...DEMO_OWNER, password: null });

/** The demo's owner where there is one who signs in by one click. */
export async function openDemoOwner(sql: Queryable): Promise<typeof DEMO_OWNER | undefined> {
  const found = await findPerson(sql, DEMO_OWNER.email);
  return found?.id === DEMO_OWNER.id && found.password === null ? DEMO_OWNER : undefined;
}

/** Signs in as the demo's owner; the token of the session. */
export async function signInToDemo(sql: Sql): Promise<string> {
  if (!(await openDemoOwner(sql)))
    throw new Refusal('not-allowed', 'The demo’s owner has chosen a password: sign in with the address and the password.');
  return beginSession(sql, DEMO_OWNER.id);
}
