import { readForPerson } from '../../../server/findings/read-for-person';
import { findingQuery } from '../finding-query';
import { personRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** The findings of all sheets that the caller works on. */
export const GET = personRoute({ query: findingQuery }, async ({ person: { id: person }, query }) =>
  Response.json(await readForPerson({ ...query, person }), { headers: { 'cache-control': 'no-store' } }),
);
