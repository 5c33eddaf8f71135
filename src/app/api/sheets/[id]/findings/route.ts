import { database } from '../../../../../server/database';
import { readFindings } from '../../../../../server/sql/finding';
import { readFollowedRules } from '../../../../../server/sql/follow';
import { findingQuery } from '../../../finding-query';
import { sheetPersonRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

/** The findings of the sheet. */
export const GET = sheetPersonRoute(
  { permit: 'work', query: findingQuery },
  async ({ id: sheet, person: { id: person }, query }) => {
    const [findings, rules] = await Promise.all([
      readFindings(database(), { ...query, person, sheet }),
      readFollowedRules(database(), { person, sheet }),
    ]);
    return Response.json({ findings, rules }, { headers: { 'cache-control': 'no-store' } });
  },
);
