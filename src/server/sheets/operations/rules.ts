import { putRules, rulesPutBy } from '../../../core/rules/shape/stored-rule';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import { deleteRules, putRule, readRules } from '../../sql/rule';
import { addedTo, idsOf, leftAlone } from './keyed';
import type { StoredOperation } from './stored-operation';

export const storedRules: StoredOperation<OperationOf<'put-rules'>> = {
  async apply(tx, sheet, operation) {
    const before = await readRules(tx, sheet, idsOf(operation.rules));
    for (const rule of rulesPutBy(operation)) await putRule(tx, sheet, rule);
    const added = addedTo(before, operation.rules);
    return [
      ...(added.length ? [{ kind: 'remove-rules' as const, rules: added }] : []),
      ...(before.length ? [putRules(before)] : []),
    ];
  },
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readRules(tx, sheet, idsOf(operation.rules));
    const rules = leftAlone(operation.rules, now, { name: 'rules', operations });
    return rules.length ? [{ ...operation, rules }] : [];
  },
};

export const storedRuleRemoval: StoredOperation<OperationOf<'remove-rules'>> = {
  async apply(tx, sheet, operation) {
    const rules = await readRules(tx, sheet, operation.rules);
    await deleteRules(tx, sheet, operation.rules);
    return rules.length ? [putRules(rules)] : [];
  },
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readRules(tx, sheet, operation.rules);
    const rules = leftAlone(operation.rules, now, { name: 'rules', operations });
    return rules.length ? [{ ...operation, rules }] : [];
  },
};
