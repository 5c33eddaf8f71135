import { database } from '../../../server/database';
import { endSessionOf } from '../../../server/people/session';
import { endSession, sessionToken } from '../cookies';
import { openRoute } from '../route-declarations';

/** Ends the session of this browser. */
export const POST = openRoute({}, async ({ request }) => {
  const token = await sessionToken();
  if (token) await endSessionOf(database(), token);
  await endSession(request);
  return Response.json({});
});
