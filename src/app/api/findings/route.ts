import { database } from '../../../server/database';
import { readFindings } from '../../../server/sql/finding';
import { readFollowedRules } from '../../../server/sql/follow';
import { requirePerson } from '../allow';
import { findingQuery } from '../finding-query';
import { readQuery } from '../read-query';
import { respond } from '../respond';

export const dynamic = 'force-dynamic';

/** The findings of all sheets that the caller works on. */
export function GET(request: Request): Promise<Response> {
  return respond(async () => {
    const { id: person } = await requirePerson();
    const query = readQuery(new URL(request.url).searchParams, findingQuery);
    const [findings, rules] = await Promise.all([
      readFindings(database(), { ...query, person }),
      readFollowedRules(database(), { person }),
    ]);
    return Response.json({ findings, rules }, { headers: { 'cache-control': 'no-store' } });
  });
}
