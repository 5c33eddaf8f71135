import { UNWATCHED_KINDS } from '../../core/findings/rule-watch';
import { MAKER_ROLES } from '../../core/sharing/role';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import type { Digest, FollowedRule } from '../../protocol/findings';
import type { Queryable } from '../database';

interface Follower {
  readonly sheet: SheetId;
  readonly person: string;
}

/** Everything that is there by now is seen, of one rule or of all. */
export async function seeAll(sql: Queryable, { sheet, person }: Follower, rule: RuleId | undefined): Promise<void> {
  if (rule !== undefined) {
    await sql`insert into finding_seen (sheet_id, finding_id, person_id)
      select sheet_id, id, ${person} from finding where sheet_id = ${sheet} and rule_id = ${rule} on conflict do nothing`;
    return;
  }
  await sql`insert into finding_follow (sheet_id, person_id, seen_to)
    select ${sheet}, ${person}, coalesce(max(id), 0) from finding where sheet_id = ${sheet}
    on conflict (sheet_id, person_id) do update set seen_to = excluded.seen_to`;
}

/** Everything that is there by now is seen, in every sheet that a person works on. */
export async function seeEverywhere(sql: Queryable, person: string): Promise<void> {
  await sql`insert into finding_follow (sheet_id, person_id, seen_to)
    select sheet_id, ${person}, max(finding.id) from finding
    join sheet_member member using (sheet_id) where member.person_id = ${person} and member.role = any(${MAKER_ROLES})
    group by sheet_id
    on conflict (sheet_id, person_id) do update set seen_to = excluded.seen_to`;
}

/** One finding is seen. */
export async function seeOne(sql: Queryable, { sheet, person }: Follower, finding: number): Promise<void> {
  await sql`insert into finding_seen (sheet_id, finding_id, person_id)
    select sheet_id, id, ${person} from finding where sheet_id = ${sheet} and id = ${finding} on conflict do nothing`;
}

/** Mutes the findings of a rule for a person, or ends that. */
export async function muteRule(
  sql: Queryable,
  { sheet, person }: Follower,
  { rule, isMuted }: { readonly rule: RuleId; readonly isMuted: boolean },
): Promise<void> {
  if (isMuted)
    await sql`insert into finding_mute (sheet_id, person_id, rule_id) values (${sheet}, ${person}, ${rule}) on conflict do nothing`;
  else await sql`delete from finding_mute where sheet_id = ${sheet} and person_id = ${person} and rule_id = ${rule}`;
}

/** When a digest of a sheet is written for somebody. */
export async function setDigest(sql: Queryable, { sheet, person }: Follower, digest: Digest): Promise<void> {
  await sql`insert into finding_follow (sheet_id, person_id, digest, digest_to)
    select ${sheet}, ${person}, ${digest}, coalesce(max(id), 0) from finding where sheet_id = ${sheet}
    on conflict (sheet_id, person_id) do update set digest = excluded.digest, digest_at = now(), digest_to = excluded.digest_to`;
}

export async function findDigest(sql: Queryable, { sheet, person }: Follower): Promise<Digest> {
  const [row] = await sql<
    { digest: Digest }[]
  >`select digest from finding_follow where sheet_id = ${sheet} and person_id = ${person}`;
  return row?.digest ?? 'none';
}

/** Adds a note to a finding; false where there is no such finding. */
export async function addNote(
  sql: Queryable,
  sheet: SheetId,
  { finding, author, text }: { readonly finding: number; readonly author: string; readonly text: string },
): Promise<boolean> {
  const { count } = await sql`insert into finding_note (sheet_id, finding_id, author, text)
    select sheet_id, id, ${author}, ${text} from finding where sheet_id = ${sheet} and id = ${finding}`;
  return count > 0;
}

/** Points of the line of a rule over time: the last ones. */
const MAX_POINTS = 300;

/**
 * The rules of the sheets that a person works on, those with unseen findings first: of one sheet all that can have
 * some, of all sheets those that do.
 */
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
          select id, at, painted from finding point where point.sheet_id = finding.sheet_id and point.rule_id = finding.rule_id order by id desc limit ${MAX_POINTS}
        ) latest order by at, id desc) points) as counts
    from finding
    join sheet_member member on member.sheet_id = finding.sheet_id and member.person_id = ${person} and member.role = any(${MAKER_ROLES})
    left join finding_follow follow on follow.sheet_id = finding.sheet_id and follow.person_id = ${person}
    left join sheet_rule kept on kept.sheet_id = finding.sheet_id and kept.id = finding.rule_id
    where ${sheet === undefined ? sql`true` : sql`finding.sheet_id = ${sheet}`}
    group by finding.sheet_id, finding.rule_id, follow.seen_to
    union all
    select kept.sheet_id, kept.id, kept.rule ->> 'name', 0,
      exists (select from finding_mute mute where mute.sheet_id = kept.sheet_id and mute.person_id = ${person} and mute.rule_id = kept.id),
      exists (select from important_rule important where important.sheet_id = kept.sheet_id and important.rule_id = kept.id),
      '[]'
    from sheet_rule kept
    join sheet_member member on member.sheet_id = kept.sheet_id and member.person_id = ${person} and member.role = any(${MAKER_ROLES})
    where kept.sheet_id = ${sheet ?? null} and kept.rule -> 'when' ->> 'kind' <> all(${[...UNWATCHED_KINDS]}) and not exists (
      select from finding where finding.sheet_id = kept.sheet_id and finding.rule_id = kept.id)
    order by unseen desc, name`;
  return [...rows];
}
