import type { StoredRule } from '../../../core/rules/shape/stored-rule';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Makes a rule, or replaces the one with its id. */
export async function putRule(sql: Queryable, sheet: SheetId, { id, key, rule }: StoredRule): Promise<void> {
  await sql`insert into sheet_rule (sheet_id, id, key, rule) values (${sheet}, ${id}, ${key}, ${JSON.stringify(rule)}::text::json)
    on conflict (sheet_id, id) do update set key = excluded.key, rule = excluded.rule`;
}
