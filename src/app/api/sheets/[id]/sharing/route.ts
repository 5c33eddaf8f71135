import { database } from '../../../../../server/database';
import { readSharing } from '../../../../../server/sheets/share-sheet';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** Who has the sheet, and by which links. */
export const GET = sheetRoute({ permit: 'own' }, async ({ id }) => {
  return Response.json(await readSharing(database(), id), { headers: { 'cache-control': 'no-store' } });
});
