import type { FieldId } from '../sheet/ids';
import { kindOf } from './kinds/registry';
import type { Rule } from './rule';

/** The same rule with every field it names replaced: labels become ids when a file is read. */
export function mapRuleFields(rule: Rule, replace: (field: FieldId) => FieldId): Rule {
  return {
    ...rule,
    reads: 'fields' in rule.reads ? { ...rule.reads, fields: rule.reads.fields.map(replace) } : rule.reads,
    when: kindOf(rule.when).mapFields(rule.when, replace),
    paints: typeof rule.paints === 'object' ? { fields: rule.paints.fields.map(replace) } : rule.paints,
  };
}
