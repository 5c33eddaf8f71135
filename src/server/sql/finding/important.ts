import type { RuleId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Rules of a sheet of which one is told at once. */
export async function readImportant(sql: Queryable, sheet: SheetId): Promise<RuleId[]> {
  const rows = await sql<{ rule_id: string }[]>`select rule_id from important_rule where sheet_id = ${sheet}`;
  return rows.map(({ rule_id }) => rule_id);
}

export async function setImportant(
  sql: Queryable,
  sheet: SheetId,
  { rule, isImportant }: { readonly rule: RuleId; readonly isImportant: boolean },
): Promise<void> {
  if (isImportant) await sql`insert into important_rule (sheet_id, rule_id) values (${sheet}, ${rule}) on conflict do nothing`;
  else await sql`delete from important_rule where sheet_id = ${sheet} and rule_id = ${rule}`;
}
