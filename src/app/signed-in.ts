import { redirect } from 'next/navigation';
import { database } from '../server/database';
import { personOfToken } from '../server/people/session';
import type { Person } from '../server/sql/person';
import { sessionToken } from './api/cookies';

/** The query of a page: what stands in an address once or several times. */
export type Query = Readonly<Record<string, string | string[] | undefined>>;

/** Who is signed in, if anybody. */
export const signedIn = async (): Promise<Person | undefined> => personOfToken(database(), await sessionToken());

/** Who is signed in; whoever is not is asked to, and comes back to `to`. */
export async function requireSignedIn(to: string): Promise<Person> {
  return (await signedIn()) ?? redirect(`/sign-in?to=${encodeURIComponent(to)}`);
}
