import { database } from '../../../../../server/database';
import { readMuch } from '../../../../../server/replicas';
import { historyOf } from '../../../../../server/sheets/read-history';
import { historyQuery } from '../../../history-query';
import { sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/**
 * A page of the sheet's history, the newest change first: before a sequence, of one person, field, record or rule where
 * asked.
 */
export const GET = sheetRoute({ permit: 'work', query: historyQuery }, async ({ id, query }) => {
  const entries = await readMuch(database(), (sql) => historyOf(sql, id, query));
  return Response.json(entries, { headers: { 'cache-control': 'no-store' } });
});
