import { database } from '../../../../../server/database';
import { readFindings } from '../../../../../server/sql/finding';
import { readFollowedRules } from '../../../../../server/sql/follow';
import { allow, requirePerson } from '../../../allow';
import { findingQuery } from '../../../finding-query';
import { readQuery } from '../../../read-query';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

/** The findings of the sheet. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id: sheet } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const query = readQuery(new URL(request.url).searchParams, findingQuery);
    const [findings, rules] = await Promise.all([
      readFindings(database(), { ...query, person, sheet }),
      readFollowedRules(database(), { person, sheet }),
    ]);
    return Response.json({ findings, rules }, { headers: { 'cache-control': 'no-store' } });
  });
}
