import { database } from '../../../../../server/database';
import { readSharing } from '../../../../../server/sheets/share-sheet';
import { allow } from '../../../allow';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** Who has the sheet, and by which links. */
export function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    return Response.json(await readSharing(database(), id), { headers: { 'cache-control': 'no-store' } });
  });
}
