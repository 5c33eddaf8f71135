import { database } from '../../../server/database';
import { tellAccessChanged } from '../../../server/access/access-channel';
import { hashToken } from '../../../server/people/token';
import { deleteSession } from '../../../server/sql/session/delete-sessions';
import { keepSession, sessionToken } from '../cookies';
import { respond } from '../respond';

/** Ends the session of this browser. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const token = await sessionToken();
    if (token) await deleteSession(database(), hashToken(token));
    await tellAccessChanged(database());
    await keepSession(null, request);
    return Response.json({});
  });
}
