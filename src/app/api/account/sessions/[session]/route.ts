import { tellAccessChanged } from '../../../../../server/access/access-channel';
import { database } from '../../../../../server/database';
import { Refusal } from '../../../../../server/refusal';
import { deleteOwnSession } from '../../../../../server/sql/session';
import { personRoute } from '../../../route-declarations';
import { refusalText } from '../../../../../texts/refusal-text';

/** Ends one of the caller's own sessions. */
export const DELETE = personRoute({}, async ({ person: { id }, param }) => {
  if (!(await deleteOwnSession(database(), id, param('session'))))
    throw new Refusal('no-sheet', refusalText('sessionHasAlreadyEnded'));
  await tellAccessChanged(database(), { person: id });
  return new Response(null, { status: 204 });
});
