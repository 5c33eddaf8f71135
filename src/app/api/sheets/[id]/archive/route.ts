import { Readable } from 'node:stream';
import { fileNameOf } from '../../../../../core/exchange/export-formats';
import { longWork } from '../../../../../server/database';
import { spooled } from '../../../../../server/spool/spooled';
import { archiveSheet } from '../../../../../server/sheets/archive-sheet';
import { allow } from '../../../allow';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** Everything that the sheet holds, its history with it, as a file that makes the same sheet again. */
export function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'work');
    const { name, packed } = await archiveSheet(longWork(), id);
    return new Response(Readable.toWeb(await spooled(packed)) as ReadableStream<Uint8Array>, {
      headers: {
        'content-type': 'application/gzip',
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name, 'auxesis'))}`,
        'cache-control': 'no-store',
      },
    });
  });
}
