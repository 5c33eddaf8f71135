import { database } from '../../../../server/database';
import { seeEverywhere } from '../../../../server/sql/follow';
import { personRoute } from '../../route-declarations';

/** Marks all findings up to now as seen, in all sheets that the caller works on. */
export const POST = personRoute({}, async ({ person: { id: person } }) => {
  await seeEverywhere(database(), person);
  return new Response(null, { status: 204 });
});
