import { database } from '../../../../../server/database';
import { historyOf } from '../../../../../server/sheets/read-history';
import { Refusal } from '../../../../../server/sheets/refusal';
import { sheetOf } from '../../../sheet-of';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** A page of the sheet's history, the newest change first: before a sequence, of one field or record where asked. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const query = new URL(request.url).searchParams;
    const before = query.get('before');
    if (before !== null && !/^\d{1,15}$/.test(before)) throw new Refusal('bad-request', '"before" must be the sequence of a change');
    const entries = await historyOf(database(), await sheetOf(params), {
      before: before === null ? undefined : Number(before),
      field: query.get('field') ?? undefined,
      row: query.get('row') ?? undefined,
    });
    return Response.json(entries, { headers: { 'cache-control': 'no-store' } });
  });
}
