import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

export async function deleteRules(sql: Queryable, sheet: SheetId, ids: readonly RuleId[]): Promise<void> {
  await sql`delete from sheet_rule where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;
}

interface PersonalRulesQuery {
  readonly sheet: SheetId;
  /** `person ID` or `visitor ID`. */
  readonly author: string;
}

/** The rules on a sheet that only somebody sees, in order of precedence. */
export const readPersonalRules = async (
  sql: Queryable,
  { sheet, author }: PersonalRulesQuery,
): Promise<StoredRule[]> => [
  ...(await sql<
    StoredRule[]
  >`select id, key, rule from personal_rule where sheet_id = ${sheet} and author = ${author} order by key, id`),
];

/** Puts rules, each instead of the one with its id, and removes others. */
export async function changePersonalRules(
  sql: Queryable,
  { sheet, author }: PersonalRulesQuery,
  { put, remove }: { readonly put: readonly StoredRule[]; readonly remove: readonly RuleId[] },
): Promise<void> {
  await sql`delete from personal_rule where sheet_id = ${sheet} and author = ${author} and id = any(${[...remove]}::text[])`;
  for (const { id, key, rule } of put)
    await sql`insert into personal_rule (sheet_id, author, id, key, rule) values (${sheet}, ${author}, ${id}, ${key}, ${JSON.stringify(rule)}::text::json)
      on conflict (sheet_id, author, id) do update set key = excluded.key, rule = excluded.rule`;
}

/** Makes a rule, or replaces the one with its id. */
export async function putRule(sql: Queryable, sheet: SheetId, { id, key, rule }: StoredRule): Promise<void> {
  await sql`insert into sheet_rule (sheet_id, id, key, rule) values (${sheet}, ${id}, ${key}, ${JSON.stringify(rule)}::text::json)
    on conflict (sheet_id, id) do update set key = excluded.key, rule = excluded.rule`;
}

/** The rules of a sheet in order of precedence; with ids, only those. */
export async function readRules(sql: Queryable, sheet: SheetId, ids?: readonly RuleId[]): Promise<StoredRule[]> {
  return sql<StoredRule[]>`select id, key, rule from sheet_rule
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${[...ids]}::text[])` : sql`true`} order by key, id`;
}
