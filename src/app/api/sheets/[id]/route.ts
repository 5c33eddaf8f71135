import { database } from '../../../../server/database';
import { changeAccess } from '../../../../server/access/change-access';
import { deleteSheet, renameSheet } from '../../../../server/sql/sheet';
import { Refusal } from '../../../../server/refusal';
import { sheetName } from '../../sheet-name';
import { sheetRoute } from '../../route-declarations';
import { refusalText } from '../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

/** Gives the sheet another name. */
export const PATCH = sheetRoute({ permit: 'own', body: sheetName }, async ({ id, body: { name } }) => {
  if (!(await renameSheet(database(), id, name))) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  return Response.json({ name });
});

/** Removes the sheet with all that is in it. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id }) => {
  await changeAccess(database(), async (tx) => {
    if (!(await deleteSheet(tx, id))) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    return { changed: { sheet: id }, value: undefined };
  });
  return new Response(null, { status: 204 });
});
