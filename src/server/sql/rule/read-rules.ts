import type { StoredRule } from '../../../core/rules/shape/stored-rule';
import type { RuleId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The rules of a sheet in order of precedence; with ids, only those. */
export async function readRules(sql: Queryable, sheet: SheetId, ids?: readonly RuleId[]): Promise<StoredRule[]> {
  return sql<StoredRule[]>`select id, key, rule from sheet_rule
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${ids as string[]}::text[])` : sql`true`} order by key, id`;
}
