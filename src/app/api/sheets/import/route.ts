import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { database } from '../../../../server/database';
import { Refusal } from '../../../../server/refusal';
import { bringInSheet } from '../../../../server/sheets/bring-in-sheet';
import { requirePerson } from '../../allow';
import { respond } from '../../respond';

export const dynamic = 'force-dynamic';

/** Makes a sheet from an archive, packed with gzip. Nothing is kept of one that stops on the way. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const { id: owner } = await requirePerson();
    if (request.headers.get('content-type') !== 'application/gzip' || !request.body)
      throw new Refusal('bad-request', 'The request must be an archive packed with gzip (content-type application/gzip)');
    const id = await bringInSheet(database(), Readable.fromWeb(request.body as ReadableStream), owner);
    return Response.json({ id }, { status: 201 });
  });
}
