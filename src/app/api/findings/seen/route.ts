import { database } from '../../../../server/database';
import { seeEverywhere } from '../../../../server/sql/follow';
import { requirePerson } from '../../allow';
import { respond } from '../../respond';

/** Marks all findings up to now as seen, in all sheets that the caller works on. */
export function POST(): Promise<Response> {
  return respond(async () => {
    const { id: person } = await requirePerson();
    await seeEverywhere(database(), person);
    return new Response(null, { status: 204 });
  });
}
