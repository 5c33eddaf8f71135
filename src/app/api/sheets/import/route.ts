import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { database, longWork } from '../../../../server/database';
import { Refusal } from '../../../../server/refusal';
import { LIMITS } from '../../../../core/exchange/limits';
import { requireRoomForSheet } from '../../../../server/sheets/room-for-sheet';
import { receiveFile } from '../../../../server/spool/receive-file';
import { bringInSheet } from '../../../../server/sheets/bring-in-sheet';
import { personRoute } from '../../route-declarations';
import { refusalText } from '../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

/** Makes a sheet from an archive, packed with gzip. Nothing is kept of one that stops on the way. */
export const POST = personRoute({}, async ({ person: { id: owner }, request }) => {
  if (request.headers.get('content-type') !== 'application/gzip' || !request.body)
    throw new Refusal('bad-request', refusalText('requestMustArchivePacked'));
  await requireRoomForSheet(database(), owner);
  const body = Readable.fromWeb(request.body as ReadableStream);
  const id = await receiveFile(body, { sender: owner, maxBytes: LIMITS.fileBytes }, (path) =>
    bringInSheet(longWork(), createReadStream(path), owner),
  );
  return Response.json({ id }, { status: 201 });
});
