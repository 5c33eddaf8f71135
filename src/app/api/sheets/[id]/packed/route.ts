import { database } from '../../../../../server/database';
import { Refusal } from '../../../../../server/sheets/refusal';
import { packedAsOf } from '../../../../../server/sheets/sheet-as-of';
import { readPacked } from '../../../../../server/sheets/read-packed';
import { sheetOf } from '../../../sheet-of';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** The sheet as it is, or as it was after the change `at`. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const at = new URL(request.url).searchParams.get('at');
    if (at !== null && !/^\d{1,15}$/.test(at)) throw new Refusal('bad-request', '"at" must be the sequence of a change');
    const id = await sheetOf(params);
    const packed = at === null ? await readPacked(database(), id) : await packedAsOf(database(), id, Number(at));
    // Compressed as its content type says: a content-encoding of our own would be taken off on the way out.
    return new Response(packed as Uint8Array<ArrayBuffer>, { headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' } });
  });
}
