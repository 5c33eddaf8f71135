import type { SheetId } from '../../../core/sheet/ids';
import { FINDINGS_PAGE, type Finding, type FindingNote, type FindingQuery } from '../../../protocol/findings';
import type { Queryable } from '../../database';

interface Asked extends FindingQuery {
  readonly person: string;
  /** Only of this sheet; of all that the person works on where absent. */
  readonly sheet?: SheetId | undefined;
}

type Row = Omit<Finding, 'sequence' | 'at' | 'id' | 'notes'> & {
  readonly id: string;
  readonly sequence: string | null;
  readonly at: Date;
  readonly notes: readonly FindingNote[];
};

/** Findings of the sheets that a person works on, the newest first, without those of rules that they have muted. */
export async function readFindings(sql: Queryable, { person, sheet, before, rule, only }: Asked): Promise<Finding[]> {
  const rows = await sql<Row[]>`
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
      join sheet_member member on member.sheet_id = sheet.id and member.person_id = ${person} and member.role in ('owner', 'editor')
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
