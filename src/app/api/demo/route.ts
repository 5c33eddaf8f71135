import { database } from '../../../server/database';
import { signInToDemo } from '../../../server/people/demo-owner';
import { keepSession } from '../cookies';
import { respond } from '../respond';

/** Signs in as the owner of the demo. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    await keepSession(await signInToDemo(database()), request);
    return Response.json({});
  });
}
