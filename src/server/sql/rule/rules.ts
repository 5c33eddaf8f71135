import type { StoredRule } from '../../../core/sheet/change';
import type { RuleId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The rules of a sheet in order of precedence; with ids, only those. */
export async function readRules(sql: Queryable, sheet: SheetId, ids?: readonly RuleId[]): Promise<StoredRule[]> {
  return sql<StoredRule[]>`select id, key, rule from sheet_rule
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${ids as string[]}::text[])` : sql`true`} order by key, id`;
}

/** Makes a rule, or replaces the one with its id. */
export async function putRule(sql: Queryable, sheet: SheetId, { id, key, rule }: StoredRule): Promise<void> {
  await sql`insert into sheet_rule (sheet_id, id, key, rule) values (${sheet}, ${id}, ${key}, ${JSON.stringify(rule)}::text::jsonb)
    on conflict (sheet_id, id) do update set key = excluded.key, rule = excluded.rule`;
}

export async function deleteRules(sql: Queryable, sheet: SheetId, ids: readonly RuleId[]): Promise<void> {
  await sql`delete from sheet_rule where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
