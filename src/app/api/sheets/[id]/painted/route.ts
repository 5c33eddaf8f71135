import { painter } from '../../../../../server/painter/painter';
import { readerOf, viewQuery } from '../../../view-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** The reader's view of a sheet; its owner and editors may preview it. */
export const GET = sheetRoute({ permit: 'read', query: viewQuery }, async ({ id, access, query: { theme, as } }) => {
  const painted = await painter().paint(id, { theme, reader: readerOf(access, as) });
  return new Response(painted, {
    headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' },
  });
});
