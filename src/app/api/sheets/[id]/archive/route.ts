import { Readable } from 'node:stream';
import { fileNameOf } from '../../../../../core/exchange/export-formats';
import { longWork } from '../../../../../server/database';
import { readMuch } from '../../../../../server/replicas';
import { spooled } from '../../../../../server/spool/spooled';
import { archiveSheet } from '../../../../../server/sheets/archive-sheet';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** Everything that the sheet holds, its history with it, as a file that makes the same sheet again. */
export const GET = sheetRoute({ permit: 'work' }, async ({ id }) => {
  const { name, packed } = await readMuch(longWork(), (sql) => archiveSheet(sql, id));
  return new Response(Readable.toWeb(await spooled(packed)) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': 'application/gzip',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name, 'auxesis'))}`,
      'cache-control': 'no-store',
    },
  });
});
