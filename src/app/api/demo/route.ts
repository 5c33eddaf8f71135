import { database } from '../../../server/database';
import { requireDemoOwner } from '../../../server/people/demo-owner';
import { signInHere } from '../cookies';
import { openRoute } from '../route-declarations';

/** Signs in as the owner of the demo. */
export const POST = openRoute({}, async ({ request }) => {
  await signInHere((await requireDemoOwner(database())).id, request);
  return Response.json({});
});
