import { fillingOf } from '../../core/sharing/filling';
import { keyFields } from '../../core/sharing/key-fields';
import type { Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';
import { readFields } from '../sql/field';
import { hasFillers } from '../sql/link';
import { readParts } from '../sql/part';
import { readRules } from '../sql/rule';

/** Operations after which a field may hold answers, or be hidden, that was not so before. */
export const mayHideMore = (operations: readonly Operation[]): boolean =>
  operations.some(({ kind }) => kind === 'put-rules' || kind === 'put-fields');

/**
 * The operations that store, once a sheet has fillers, that its hidden fields and those of its answer keys are withheld
 * from them: so that they stay so when the rule goes, or when an editor shows the field. Only the owner gives them to
 * fillers again. Nothing where all is stored already.
 */
export async function keepingOperations(
  sql: Queryable,
  sheet: SheetId,
  fillers: 'if-any' | 'to-come',
): Promise<Operation[]> {
  if (fillers === 'if-any' && !(await hasFillers(sql, sheet))) return [];
  const filling = fillingOf(await readParts(sql, sheet, ['filling']));
  const rules = (await readRules(sql, sheet)).map(({ rule }) => rule);
  const fields = await readFields(sql, sheet);
  const hidden = fields.flatMap(({ id, hidden: isHidden }) => (isHidden ? id : []));
  const toKeep = [...new Set([...keyFields(rules, fields), ...hidden])].filter(
    (field) => !filling.kept.includes(field),
  );
  return toKeep.length ? [{ kind: 'put-parts', parts: [{ ...filling, kept: [...filling.kept, ...toKeep] }] }] : [];
}
