import type { SheetId } from '../../../core/sheet/ids';
import type { FollowedRule } from '../../../protocol/findings';
import type { Queryable } from '../../database';

/** Points of the line of a rule over time: the last ones. */
const MOST_POINTS = 300;

/** The rules that have findings in the sheets that a person works on, those with unseen ones first. */
export async function readFollowedRules(
  sql: Queryable,
  { person, sheet }: { readonly person: string; readonly sheet?: SheetId | undefined },
): Promise<FollowedRule[]> {
  const rows = await sql<FollowedRule[]>`
    select finding.sheet_id as sheet, finding.rule_id as id,
      (array_agg(coalesce(kept.rule ->> 'name', finding.rule_name) order by finding.id desc))[1] as name,
      count(*) filter (where finding.id > coalesce(follow.seen_to, 0) and not exists (
        select from finding_seen seen where seen.sheet_id = finding.sheet_id and seen.finding_id = finding.id and seen.person_id = ${person}
      ))::int as unseen,
      exists (select from finding_mute mute where mute.sheet_id = finding.sheet_id and mute.person_id = ${person} and mute.rule_id = finding.rule_id) as "isMuted",
      exists (select from important_rule important where important.sheet_id = finding.sheet_id and important.rule_id = finding.rule_id) as "isImportant",
      (select coalesce(json_agg(json_build_array(extract(epoch from at) * 1000, painted) order by id), '[]') from (
        select distinct on (at) id, at, painted from (
          select id, at, painted from finding point where point.sheet_id = finding.sheet_id and point.rule_id = finding.rule_id order by id desc limit ${MOST_POINTS}
        ) latest order by at, id desc) points) as counts
    from finding
    join sheet_member member on member.sheet_id = finding.sheet_id and member.person_id = ${person} and member.role in ('owner', 'editor')
    left join finding_follow follow on follow.sheet_id = finding.sheet_id and follow.person_id = ${person}
    left join sheet_rule kept on kept.sheet_id = finding.sheet_id and kept.id = finding.rule_id
    where ${sheet === undefined ? sql`true` : sql`finding.sheet_id = ${sheet}`}
    group by finding.sheet_id, finding.rule_id, follow.seen_to
    order by unseen desc, name`;
  return [...rows];
}
