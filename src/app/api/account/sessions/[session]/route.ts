import { changeAccess } from '../../../../../server/access/change-access';
import { database } from '../../../../../server/database';
import { Refusal } from '../../../../../server/refusal';
import { deleteOwnSession } from '../../../../../server/sql/session';
import { personRoute } from '../../../route-declarations';
import { refusalText } from '../../../../../texts/refusal-text';

/** Ends one of the caller's own sessions. */
export const DELETE = personRoute({}, async ({ person: { id }, param }) => {
  await changeAccess(database(), async (tx) => {
    if (!(await deleteOwnSession(tx, id, param('session'))))
      throw new Refusal('no-sheet', refusalText('sessionHasAlreadyEnded'));
    return { changed: { person: id }, value: undefined };
  });
  return new Response(null, { status: 204 });
});
