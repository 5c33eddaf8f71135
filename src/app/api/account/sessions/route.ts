import { database } from '../../../../server/database';
import { signOutEverywhere } from '../../../../server/people/accounts';
import { hashToken } from '../../../../server/people/token';
import { readSessions } from '../../../../server/sql/session';
import { endSession, sessionToken } from '../../cookies';
import { personRoute } from '../../route-declarations';

export const dynamic = 'force-dynamic';

/** The sessions of the caller. */
export const GET = personRoute({}, async ({ person: { id } }) => {
  return Response.json(await readSessions(database(), id, hashToken((await sessionToken()) ?? '')));
});

/** Signs the account out everywhere, here too. */
export const DELETE = personRoute({}, async ({ person, request }) => {
  await signOutEverywhere(database(), person);
  await endSession(request);
  return Response.json({});
});
