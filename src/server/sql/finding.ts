import { MAKER_ROLES } from '../../core/sharing/role';
import type { KeptQuiet } from '../../core/findings/quiet/quiet-cells';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import {
  FINDINGS_PAGE,
  type Finding,
  type FindingNote,
  type FindingQuery,
  type NewFinding,
} from '../../protocol/findings';
import type { Queryable } from '../database';

/** Up to where a sheet's findings are known. */
export interface FindingHead {
  readonly sequence: number;
  /** Milliseconds of the Unix epoch. */
  readonly at: number;
  /** The sheet's own last change, and whether it has rules at all. */
  readonly last: number;
  readonly hasRules: boolean;
}

/** The head of a sheet; undefined where there is no such sheet. */
export async function findFindingHead(sql: Queryable, sheet: SheetId): Promise<FindingHead | undefined> {
  const [row] = await sql<{ sequence: string; at: Date; last: string; has_rules: boolean }[]>`
    select finding_head.sequence, finding_head.at, sheet.head as last,
      exists (select from sheet_rule where sheet_rule.sheet_id = sheet.id) as has_rules
    from finding_head join sheet on sheet.id = finding_head.sheet_id where sheet.id = ${sheet}`;
  return (
    row && { sequence: Number(row.sequence), at: row.at.getTime(), last: Number(row.last), hasRules: row.has_rules }
  );
}

/** Sheets whose findings are behind their log. */
export async function sheetsBehind(sql: Queryable): Promise<SheetId[]> {
  const rows = await sql<
    { id: string }[]
  >`select sheet.id from sheet join finding_head on sheet_id = sheet.id where head > sequence`;
  return rows.map(({ id }) => id);
}

/** Sheets with time-dependent rules. */
export async function sheetsByClock(sql: Queryable): Promise<SheetId[]> {
  const rows = await sql<{ sheet_id: string }[]>`
    select distinct sheet_id from sheet_rule where rule -> 'when' ->> 'kind' in ('date', 'change', 'formula')`;
  return rows.map(({ sheet_id }) => sheet_id);
}

/** Sheets of which a quiet rule has waited until a moment. */
export async function sheetsDue(sql: Queryable, nowMs: number): Promise<SheetId[]> {
  const rows = await sql<{ sheet_id: string }[]>`
    select sheet_id from finding_head where quiet_due <= ${new Date(nowMs)} order by quiet_due limit 1000`;
  return rows.map(({ sheet_id }) => sheet_id);
}

/** What is known of the cells of a sheet's quiet rules; null where it has none. */
export async function readQuiet(sql: Queryable, sheet: SheetId): Promise<KeptQuiet | null> {
  const [row] = await sql<{ quiet: KeptQuiet | null }[]>`select quiet from finding_head where sheet_id = ${sheet}`;
  return row?.quiet ?? null;
}

/** Keeps what is known of the cells of quiet rules, and when the next of them has something to report. */
export async function keepQuiet(
  sql: Queryable,
  sheet: SheetId,
  { known, nextAt }: { readonly known: KeptQuiet | null; readonly nextAt: number | null },
): Promise<void> {
  await sql`update finding_head set quiet = ${known && JSON.stringify(known)}::text::jsonb, quiet_due = ${nextAt === null ? null : new Date(nextAt)}
    where sheet_id = ${sheet}`;
}

/** Begins to know findings of a new sheet, from the changes after a sequence. */
export async function insertFindingHead(sql: Queryable, sheet: SheetId, sequence: number): Promise<void> {
  await sql`insert into finding_head (sheet_id, sequence) values (${sheet}, ${sequence})`;
}

/** Moves a head on, if it is still where it was: false where another process was quicker. */
export async function moveFindingHead(
  sql: Queryable,
  sheet: SheetId,
  { from, to, at }: { readonly from: FindingHead; readonly to: number; readonly at: number },
): Promise<boolean> {
  const { count } = await sql`update finding_head set sequence = ${to}, at = ${new Date(at)}
    where sheet_id = ${sheet} and sequence = ${from.sequence} and date_trunc('milliseconds', at) = ${new Date(from.at)}`;
  return count > 0;
}

/** Rules of a sheet whose findings are sent at once. */
export async function readImportant(sql: Queryable, sheet: SheetId): Promise<RuleId[]> {
  const rows = await sql<{ rule_id: string }[]>`select rule_id from important_rule where sheet_id = ${sheet}`;
  return rows.map(({ rule_id }) => rule_id);
}

export async function setImportant(
  sql: Queryable,
  sheet: SheetId,
  { rule, isImportant }: { readonly rule: RuleId; readonly isImportant: boolean },
): Promise<void> {
  if (isImportant)
    await sql`insert into important_rule (sheet_id, rule_id) values (${sheet}, ${rule}) on conflict do nothing`;
  else await sql`delete from important_rule where sheet_id = ${sheet} and rule_id = ${rule}`;
}

export interface InsertedFinding extends NewFinding {
  readonly sequence: number | null;
  readonly author: string | null;
  readonly at: number;
}

/** The channel of new findings, to every process. */
export const FINDING_CHANNEL = 'sheet_finding';

/** Stores findings, in their order, and notifies on commit. */
export async function insertFindings(
  sql: Queryable,
  sheet: SheetId,
  findings: readonly InsertedFinding[],
): Promise<void> {
  await sql`insert into finding (sheet_id, rule_id, rule_name, outcome, way, row_id, field_id, record, label, before, after, painted, sequence, author, at)
    select ${sheet}, * from unnest(
      ${findings.map(({ rule }) => rule)}::text[], ${findings.map(({ ruleName }) => ruleName)}::text[], ${findings.map(({ outcome }) => outcome)}::text[],
      ${findings.map(({ way }) => way)}::text[], ${findings.map(({ row }) => row)}::text[], ${findings.map(({ field }) => field)}::text[],
      ${findings.map(({ record }) => record)}::text[], ${findings.map(({ label }) => label)}::text[], ${findings.map(({ before }) => before)}::text[],
      ${findings.map(({ after }) => after)}::text[], ${findings.map(({ painted }) => painted)}::int[],
      ${findings.map(({ sequence }) => sequence)}::bigint[], ${findings.map(({ author }) => author)}::text[],
      ${findings.map(({ at }) => new Date(at).toISOString())}::timestamptz[])`;
  await sql`select pg_notify(${FINDING_CHANNEL}, ${sheet})`;
}

/** A finding as programs get it. */
export interface ToldFinding {
  readonly id: number;
  readonly rule: string;
  readonly ruleName: string;
  readonly way: 'entered' | 'left';
  readonly outcome: string;
  readonly record: string;
  readonly label: string;
  readonly before: string;
  readonly after: string;
  /** Milliseconds of the Unix epoch. */
  readonly at: number;
  readonly by: string | null;
}

interface FindingPageQuery {
  readonly limit: number;
  readonly rule?: string | undefined;
  /** Only those before, or after, the finding with this id. */
  readonly before?: number | undefined;
  readonly after?: number | undefined;
}

/** Findings of a sheet: the newest first, or with `after` the oldest first. */
export async function pageOfFindings(
  sql: Queryable,
  sheet: SheetId,
  { limit, rule, before, after }: FindingPageQuery,
): Promise<ToldFinding[]> {
  const rows = await sql<(Omit<ToldFinding, 'id' | 'at'> & { readonly id: string; readonly at: Date })[]>`
    select id, rule_id as rule, rule_name as "ruleName", way, outcome, record, label, before, after, at, author_name(sheet_id, author) as by
    from finding where sheet_id = ${sheet}
      and ${rule === undefined ? sql`true` : sql`rule_id = ${rule}`}
      and ${before === undefined ? sql`true` : sql`id < ${before}`}
      and ${after === undefined ? sql`true` : sql`id > ${after}`}
    order by id ${after === undefined ? sql`desc` : sql`asc`} limit ${limit}`;
  return rows.map(({ id, at, ...rest }) => ({ ...rest, id: Number(id), at: at.getTime() }));
}

/** Who made the changes after a sequence up to another: `person ID` or `visitor ID`. */
export async function readAuthors(
  sql: Queryable,
  sheet: SheetId,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<ReadonlyMap<number, string>> {
  const rows = await sql<{ sequence: string; author: string }[]>`
    select sequence, author from sheet_change where sheet_id = ${sheet} and sequence > ${after} and sequence <= ${to}`;
  return new Map(rows.map(({ sequence, author }) => [Number(sequence), author]));
}

export interface ReaderFindingQuery extends FindingQuery {
  readonly person: string;
  /** Only of this sheet; of all that the person works on where absent. */
  readonly sheet?: SheetId | undefined;
}

type FindingRow = Omit<Finding, 'sequence' | 'at' | 'id' | 'notes'> & {
  readonly id: string;
  readonly sequence: string | null;
  readonly at: Date;
  readonly notes: readonly FindingNote[];
};

/** Findings of the sheets that a person works on, the newest first, without those of rules that they have muted. */
export async function readFindings(
  sql: Queryable,
  { person, sheet, before, rule, only }: ReaderFindingQuery,
): Promise<Finding[]> {
  const rows = await sql<FindingRow[]>`
    select * from (
      select finding.id, finding.sheet_id as sheet, sheet.name as "sheetName", rule_id as rule, rule_name as "ruleName", outcome, way,
        row_id as row, field_id as field, record, label, before, after, painted, sequence, finding.at,
        author_name(finding.sheet_id, finding.author) as by,
        finding.id <= coalesce(follow.seen_to, 0) or exists (
          select from finding_seen seen where seen.sheet_id = finding.sheet_id and seen.finding_id = finding.id and seen.person_id = ${person}
        ) as "isSeen",
        coalesce((select json_agg(json_build_object('by', note.author, 'text', note.text, 'at', extract(epoch from note.at) * 1000) order by note.id)
          from finding_note note where note.sheet_id = finding.sheet_id and note.finding_id = finding.id), '[]') as notes
      from finding
      join sheet on sheet.id = finding.sheet_id
      join sheet_member member on member.sheet_id = sheet.id and member.person_id = ${person} and member.role = any(${MAKER_ROLES})
      left join finding_follow follow on follow.sheet_id = sheet.id and follow.person_id = ${person}
      where ${sheet === undefined ? sql`true` : sql`finding.sheet_id = ${sheet}`}
        and ${rule === undefined ? sql`true` : sql`rule_id = ${rule}`}
        and ${before === undefined ? sql`true` : sql`finding.id < ${before}`}
        and not exists (select from finding_mute mute
          where mute.sheet_id = finding.sheet_id and mute.person_id = ${person} and mute.rule_id = finding.rule_id)
    ) told
    where ${only === 'unseen' ? sql`not "isSeen"` : sql`true`}
    order by id desc limit ${FINDINGS_PAGE}`;
  return rows.map(({ id, sequence, at, ...rest }) => ({
    ...rest,
    id: Number(id),
    sequence: sequence === null ? null : Number(sequence),
    at: at.getTime(),
  }));
}
