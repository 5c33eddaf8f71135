import { redirect } from 'next/navigation';
import { cache } from 'react';
import { database } from '../server/database';
import { personOfToken } from '../server/people/session';
import type { Person } from '../server/sql/person';
import { sessionToken } from './api/cookies';

/** The query of a page: what stands in an address once or several times. */
export type Query = Readonly<Record<string, string | string[] | undefined>>;

/** The person who is signed in, if any; asked once for each page. */
export const signedIn = cache(async (): Promise<Person | undefined> => personOfToken(database(), await sessionToken()));

/** The person who is signed in; others are sent to sign in, and come back to `to`. */
export async function requireSignedIn(to: string): Promise<Person> {
  return (await signedIn()) ?? redirect(`/sign-in?to=${encodeURIComponent(to)}`);
}
