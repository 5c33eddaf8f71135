import type { Queryable, Sql } from '../database';
import { Refusal } from '../refusal';
import { settings } from '../settings';
import { findPerson, insertPerson } from '../sql/person';
import { refusalText } from '../../texts/refusal-text';

/** Owns the sheets of the demo, and signs in by one click until they choose a password. */
export const DEMO_OWNER = { id: 'demo-owner', email: 'mara@wrenfold.example', name: 'Mara Quillfeather' } as const;

/** Makes the account, once. */
export const makeDemoOwner = (sql: Queryable): Promise<boolean> => insertPerson(sql, { ...DEMO_OWNER, password: null });

/** The demo's owner where there is one who signs in by one click: never where the demo is off. */
export async function openDemoOwner(sql: Queryable): Promise<typeof DEMO_OWNER | undefined> {
  if (!settings().demo) return undefined;
  const found = await findPerson(sql, DEMO_OWNER.email);
  return found?.id === DEMO_OWNER.id && found.password === null ? DEMO_OWNER : undefined;
}

/** The demo's owner. Throws a Refusal where they do not sign in by one click. */
export async function requireDemoOwner(sql: Sql): Promise<typeof DEMO_OWNER> {
  const owner = await openDemoOwner(sql);
  if (!owner) throw new Refusal('not-allowed', refusalText('demoSignOffSign'));
  return owner;
}
