import { database } from '../../../../../server/database';
import { historyOf } from '../../../../../server/sheets/read-history';
import { allow } from '../../../allow';
import { historyQuery } from '../../../history-query';
import { readQuery } from '../../../read-query';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/**
 * A page of the sheet's history, the newest change first: before a sequence, of one person, field, record or rule where
 * asked.
 */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'work');
    const entries = await historyOf(database(), id, readQuery(new URL(request.url).searchParams, historyQuery));
    return Response.json(entries, { headers: { 'cache-control': 'no-store' } });
  });
}
