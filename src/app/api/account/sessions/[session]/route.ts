import { tellAccessChanged } from '../../../../../server/access/access-channel';
import { database } from '../../../../../server/database';
import { Refusal } from '../../../../../server/refusal';
import { deleteOwnSession } from '../../../../../server/sql/session';
import { requirePerson } from '../../../allow';
import { respond } from '../../../respond';

/** Ends one of the caller's own sessions. */
export function DELETE(_: Request, { params }: { params: Promise<{ session: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await requirePerson();
    if (!(await deleteOwnSession(database(), id, (await params).session)))
      throw new Refusal('no-sheet', 'This session is over already.');
    await tellAccessChanged(database(), { person: id });
    return new Response(null, { status: 204 });
  });
}
