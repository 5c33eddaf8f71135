import { MAKER_ROLES } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { RuleSetBody, RuleSetHead, RuleSetWhole } from '../../protocol/rule-sets';
import type { Queryable } from '../database';

/** Keeps a new rule set. */
export async function insertRuleSet(
  sql: Queryable,
  {
    id,
    owner,
    name,
    body,
  }: { readonly id: string; readonly owner: string; readonly name: string; readonly body: RuleSetBody },
): Promise<void> {
  await sql`insert into rule_set (id, owner_id, name, body) values (${id}, ${owner}, ${name}, ${JSON.stringify(body)}::text::json)`;
}

/** Saves a new version of a rule set, and gives its number; undefined where it is not this person's. */
export async function updateRuleSet(
  sql: Queryable,
  { id, owner, body }: { readonly id: string; readonly owner: string; readonly body: RuleSetBody },
): Promise<number | undefined> {
  const [row] = await sql<
    { version: number }[]
  >`update rule_set set body = ${JSON.stringify(body)}::text::json, version = version + 1, changed_at = now()
    where id = ${id} and owner_id = ${owner} returning version`;
  return row?.version;
}

/** Removes a rule set; sheets keep the rules that they have from it. False where it is not this person's. */
export async function deleteRuleSet(
  sql: Queryable,
  { id, owner }: { readonly id: string; readonly owner: string },
): Promise<boolean> {
  const { count } = await sql`delete from rule_set where id = ${id} and owner_id = ${owner}`;
  return count > 0;
}

/**
 * True for a rule set that is used in a sheet on which its owner works as well: so it was put there by who may share
 * it, or they let it stay. The name of a set alone opens it to nobody.
 */
const isShared = (sql: Queryable, sheet: SheetId) => sql`(
  exists (select from sheet_part where sheet_id = ${sheet} and part ->> 'kind' = 'rule-set' and part ->> 'set' = rule_set.id)
  and exists (select from sheet_member where sheet_id = ${sheet} and person_id = rule_set.owner_id and role = any(${MAKER_ROLES})))`;

/** The rule sets of a person, and those that are used in a sheet that they work on. */
export async function readRuleSets(
  sql: Queryable,
  { person, sheet }: { readonly person: string; readonly sheet: SheetId },
): Promise<RuleSetHead[]> {
  return [
    ...(await sql<RuleSetHead[]>`
      select id, name, version, json_array_length(body -> 'rules') as rules, owner_id = ${person} as "isOwn" from rule_set
      where owner_id = ${person} or ${isShared(sql, sheet)}
      order by name, id`),
  ];
}

/** A rule set with its rules, for those who see it in a sheet. */
export async function findRuleSet(
  sql: Queryable,
  { id, person, sheet }: { readonly id: string; readonly person: string; readonly sheet: SheetId },
): Promise<RuleSetWhole | undefined> {
  const [row] = await sql<RuleSetWhole[]>`
    select id, name, version, json_array_length(body -> 'rules') as rules, owner_id = ${person} as "isOwn", body from rule_set
    where id = ${id} and (owner_id = ${person}
      or ${isShared(sql, sheet)})`;
  return row;
}
