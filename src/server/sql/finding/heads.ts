import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

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
  return row && { sequence: Number(row.sequence), at: row.at.getTime(), last: Number(row.last), hasRules: row.has_rules };
}

/** Sheets whose findings are behind their log. */
export async function sheetsBehind(sql: Queryable): Promise<SheetId[]> {
  const rows = await sql<{ id: string }[]>`select sheet.id from sheet join finding_head on sheet_id = sheet.id where head > sequence`;
  return rows.map(({ id }) => id);
}

/** Sheets with rules that may come to another outcome as time goes by. */
export async function sheetsByClock(sql: Queryable): Promise<SheetId[]> {
  const rows = await sql<{ sheet_id: string }[]>`
    select distinct sheet_id from sheet_rule where rule -> 'when' ->> 'kind' in ('date', 'change', 'formula')`;
  return rows.map(({ sheet_id }) => sheet_id);
}

/** Begins to know findings of a new sheet. */
export async function insertFindingHead(sql: Queryable, sheet: SheetId): Promise<void> {
  await sql`insert into finding_head (sheet_id, sequence) values (${sheet}, 0)`;
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
