import { database } from '../../../../../../server/database';
import { tellAccessChanged } from '../../../../../../server/access/access-channel';
import { Refusal } from '../../../../../../server/refusal';
import { revokeProgram } from '../../../../../../server/sql/program';
import { sheetRoute } from '../../../../route-declarations';
import { refusalText } from '../../../../../../texts/refusal-text';

/** Takes a program's token back. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id, param }) => {
  if (!(await revokeProgram(database(), id, param('program'))))
    throw new Refusal('no-sheet', refusalText('thereNoSuchProgram'));
  await tellAccessChanged(database(), { sheet: id });
  return new Response(null, { status: 204 });
});
