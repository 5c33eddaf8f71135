import { database } from '../../../server/database';
import { readFindings } from '../../../server/sql/finding';
import { readFollowedRules } from '../../../server/sql/follow';
import { findingQuery } from '../finding-query';
import { personRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** The findings of all sheets that the caller works on. */
export const GET = personRoute({ query: findingQuery }, async ({ person: { id: person }, query }) => {
  const [findings, rules] = await Promise.all([
    readFindings(database(), { ...query, person }),
    readFollowedRules(database(), { person }),
  ]);
  return Response.json({ findings, rules }, { headers: { 'cache-control': 'no-store' } });
});
