import { database } from '../../../../../server/database';
import { readPast } from '../../../../../server/sheets/read-past';
import { Refusal } from '../../../../../server/sheets/refusal';
import { sheetOf } from '../../../sheet-of';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** What cells held before, by the changes up to the sequence `until`. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const until = new URL(request.url).searchParams.get('until') ?? '';
    if (!/^\d{1,15}$/.test(until)) throw new Refusal('bad-request', '"until" must be the sequence of a change');
    const past = await readPast(database(), await sheetOf(params), { until: Number(until) });
    return Response.json(past, { headers: { 'cache-control': 'no-store' } });
  });
}
