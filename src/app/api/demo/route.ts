import { database } from '../../../server/database';
import { requireDemoOwner } from '../../../server/people/demo-owner';
import { signInHere } from '../cookies';
import { respond } from '../respond';

/** Signs in as the owner of the demo. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    await signInHere((await requireDemoOwner(database())).id, request);
    return Response.json({});
  });
}
