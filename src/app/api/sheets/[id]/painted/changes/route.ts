import Joi from 'joi';
import { paintedStream } from '../../../../../../server/live/painted-stream';
import { ownKey } from '../../../../../../server/live/presence';
import { allow, servedOf } from '../../../../allow';
import { pageKey, readQuery, sequence } from '../../../../read-query';
import { respond } from '../../../../respond';
import { streamed } from '../../../../streamed';
import { readerOf, viewQuery, type ViewQuery } from '../../../../view-query';

export const dynamic = 'force-dynamic';

const schema = viewQuery.append<ViewQuery & { view: string; revision: number; page?: string }>({
  view: Joi.string().max(40).required(),
  revision: sequence.required(),
  page: pageKey,
});

/** The repaints of the reader view, as server-sent events, from where the reader stands. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access, isStill } = await allow(params, 'read');
    const { theme, as, view, revision, page } = readQuery(new URL(request.url).searchParams, schema);
    const of = { theme, reader: readerOf(access, as) };
    return streamed(
      paintedStream({
        sheet,
        of,
        from: { view, revision },
        page: page && ownKey(access.author, page),
        signal: request.signal,
        served: servedOf(sheet, access),
        mayRead: isStill,
      }),
    );
  });
}
