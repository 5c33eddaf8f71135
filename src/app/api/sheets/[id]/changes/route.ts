import { changeSchema } from '../../../../../protocol/change-schema';
import { database } from '../../../../../server/database';
import { changeStream } from '../../../../../server/live/change-stream';
import { takeChange } from '../../../../../server/sheets/take-change';
import { Refusal } from '../../../../../server/sheets/refusal';
import { AUTHOR } from '../../../author';
import { readBody } from '../../../read-body';
import { sheetOf } from '../../../sheet-of';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

export function POST(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const change = await readBody(request, changeSchema);
    return Response.json({ sequence: await takeChange(database(), { sheet: await sheetOf(params), author: AUTHOR, change }) });
  });
}

/** Changes after a sequence as server-sent events; a reader that resumes names the last one it got. */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const asked = request.headers.get('last-event-id') ?? new URL(request.url).searchParams.get('after') ?? '0';
    if (!/^\d{1,15}$/.test(asked)) throw new Refusal('bad-request', '"after" must be the sequence of a change');
    const stream = await changeStream(database(), { sheet: await sheetOf(params), after: Number(asked), signal: request.signal });
    return new Response(stream, {
      headers: { 'content-type': 'text/event-stream; charset=utf-8', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' },
    });
  });
}
