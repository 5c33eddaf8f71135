import { kindOf } from '../kinds/registry';
import type { Rule } from './rule';
import type { RuleReferences } from '../terms';

const AS_IT_IS: RuleReferences = { field: (field) => field, cells: (ranges) => ranges, formula: (text) => text };

/** The same rule with what it names replaced: labels become ids when a file is read, addresses move when rows do. */
export function mapRuleReferences(rule: Rule, replace: Partial<RuleReferences>): Rule {
  const to = { ...AS_IT_IS, ...replace };
  return {
    ...rule,
    reads:
      'fields' in rule.reads
        ? { ...rule.reads, fields: rule.reads.fields.map(to.field) }
        : { cells: to.cells(rule.reads.cells) },
    when: kindOf(rule.when).mapReferences(rule.when, to),
    paints: typeof rule.paints === 'object' ? { fields: rule.paints.fields.map(to.field) } : rule.paints,
  };
}
