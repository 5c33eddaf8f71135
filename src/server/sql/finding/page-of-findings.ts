import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** A finding as programs are told of it. */
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

interface Asked {
  readonly limit: number;
  readonly rule?: string | undefined;
  /** Only those before, or after, the finding with this id. */
  readonly before?: number | undefined;
  readonly after?: number | undefined;
}

/** Findings of a sheet: the newest first, or with `after` the oldest first. */
export async function pageOfFindings(sql: Queryable, sheet: SheetId, { limit, rule, before, after }: Asked): Promise<ToldFinding[]> {
  const rows = await sql<(Omit<ToldFinding, 'id' | 'at'> & { readonly id: string; readonly at: Date })[]>`
    select id, rule_id as rule, rule_name as "ruleName", way, outcome, record, label, before, after, at, author_name(sheet_id, author) as by
    from finding where sheet_id = ${sheet}
      and ${rule === undefined ? sql`true` : sql`rule_id = ${rule}`}
      and ${before === undefined ? sql`true` : sql`id < ${before}`}
      and ${after === undefined ? sql`true` : sql`id > ${after}`}
    order by id ${after === undefined ? sql`desc` : sql`asc`} limit ${limit}`;
  return rows.map(({ id, at, ...rest }) => ({ ...rest, id: Number(id), at: at.getTime() }));
}
