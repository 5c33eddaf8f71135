import { database } from '../../../../../../server/database';
import { changeAccess } from '../../../../../../server/access/change-access';
import { Refusal } from '../../../../../../server/refusal';
import { revokeProgram } from '../../../../../../server/sql/program';
import { sheetRoute } from '../../../../route-declarations';
import { refusalText } from '../../../../../../texts/refusal-text';

/** Takes a program's token back. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id, param }) => {
  await changeAccess(database(), async (tx) => {
    if (!(await revokeProgram(tx, id, param('program'))))
      throw new Refusal('no-sheet', refusalText('thereNoSuchProgram'));
    return { changed: { sheet: id }, value: undefined };
  });
  return new Response(null, { status: 204 });
});
