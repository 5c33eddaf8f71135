import type { SheetId } from '../../../core/sheet/ids';
import type { NewFinding } from '../../../protocol/findings';
import type { Queryable } from '../../database';

export interface InsertedFinding extends NewFinding {
  readonly sequence: number | null;
  readonly author: string | null;
  readonly at: number;
}

/** The channel on which it is told to every process that a sheet has new findings. */
export const FINDING_CHANNEL = 'sheet_finding';

/** Keeps findings, in their order, and tells on commit that there are some. */
export async function insertFindings(sql: Queryable, sheet: SheetId, findings: readonly InsertedFinding[]): Promise<void> {
  await sql`insert into finding (sheet_id, rule_id, rule_name, outcome, way, row_id, field_id, record, label, before, after, painted, sequence, author, at)
    select ${sheet}, * from unnest(
      ${findings.map(({ rule }) => rule)}::text[], ${findings.map(({ ruleName }) => ruleName)}::text[], ${findings.map(({ outcome }) => outcome)}::text[],
      ${findings.map(({ way }) => way)}::text[], ${findings.map(({ row }) => row)}::text[], ${findings.map(({ field }) => field)}::text[],
      ${findings.map(({ record }) => record)}::text[], ${findings.map(({ label }) => label)}::text[], ${findings.map(({ before }) => before)}::text[],
      ${findings.map(({ after }) => after)}::text[], ${findings.map(({ painted }) => painted)}::int[],
      ${findings.map(({ sequence }) => sequence) as number[]}::bigint[], ${findings.map(({ author }) => author) as string[]}::text[],
      ${findings.map(({ at }) => new Date(at).toISOString())}::timestamptz[])`;
  await sql`select pg_notify(${FINDING_CHANNEL}, ${sheet})`;
}
