import { readForPerson } from '../../../../../server/findings/read-for-person';
import { findingQuery } from '../../../finding-query';
import { sheetPersonRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** The findings of the sheet. */
export const GET = sheetPersonRoute(
  { permit: 'work', query: findingQuery },
  async ({ id: sheet, person: { id: person }, query }) =>
    Response.json(await readForPerson({ ...query, person, sheet }), { headers: { 'cache-control': 'no-store' } }),
);
