import { database } from '../../../../../server/database';
import { readPacked } from '../../../../../server/sheets/read-packed';
import { sheetOf } from '../../../sheet-of';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

export function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const packed = await readPacked(database(), await sheetOf(params));
    // Compressed as its content type says: a content-encoding of our own would be taken off on the way out.
    return new Response(packed as Uint8Array<ArrayBuffer>, { headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' } });
  });
}
