import { tellAccessChanged } from '../../../server/access/access-channel';
import { database } from '../../../server/database';
import { personOfToken } from '../../../server/people/session';
import { hashToken } from '../../../server/people/token';
import { deleteSession } from '../../../server/sql/session';
import { endSession, sessionToken } from '../cookies';
import { openRoute } from '../route-declarations';

/** Ends the session of this browser. */
export const POST = openRoute({}, async ({ request }) => {
  const token = await sessionToken();
  const person = await personOfToken(database(), token);
  if (token && person) {
    await deleteSession(database(), hashToken(token));
    await tellAccessChanged(database(), { person: person.id });
  }
  await endSession(request);
  return Response.json({});
});
