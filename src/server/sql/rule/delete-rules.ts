import type { RuleId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export async function deleteRules(sql: Queryable, sheet: SheetId, ids: readonly RuleId[]): Promise<void> {
  await sql`delete from sheet_rule where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
