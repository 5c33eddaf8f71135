import { painter } from '../../../../../server/painter/painter';
import { allow } from '../../../allow';
import { readQuery } from '../../../read-query';
import { respond } from '../../../respond';
import { readerOf, viewQuery } from '../../../view-query';

export const dynamic = 'force-dynamic';

/** The reader's view of a sheet; its owner and editors may preview it. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id, access } = await allow(params, 'read');
    const { theme, as } = readQuery(new URL(request.url).searchParams, viewQuery);
    const painted = await painter().paint(id, { theme, reader: readerOf(access, as) });
    return new Response(painted, {
      headers: { 'content-type': 'application/gzip', 'cache-control': 'no-store' },
    });
  });
}
