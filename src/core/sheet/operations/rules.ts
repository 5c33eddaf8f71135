import { counted } from '../../values/counted';
import type { KeyedRule, Operation } from '../change';
import { RULES } from '../effect';
import type { RuleId } from '../ids';
import type { OperationKind, OperationOf } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'put-rules': { readonly kind: 'put-rules'; readonly rules: readonly KeyedRule[] };
    'remove-rules': { readonly kind: 'remove-rules'; readonly rules: readonly RuleId[] };
  }
}

/** Rules that are named one by one. */
const MAX_NAMED = 3;

const inverseOf = (before: readonly KeyedRule[], added: readonly RuleId[]): Operation[] => [
  ...(added.length ? [{ kind: 'remove-rules' as const, rules: added }] : []),
  ...(before.length ? [{ kind: 'put-rules' as const, rules: before }] : []),
];

export const putRules: OperationKind<OperationOf<'put-rules'>> = {
  schema: ({ rules }) => ({ rules }),
  apply(sheet, { rules }) {
    const { before, added } = sheet.rules.put(rules);
    return { effects: [RULES], inverse: inverseOf(before, added) };
  },
  words({ rules }, { made }) {
    const names = rules.map(({ id, rule }) => `rule “${rule.name}” ${made.has(id) ? 'made' : 'changed'}`);
    const others = names.length - MAX_NAMED;
    return others > 0 ? [...names.slice(0, MAX_NAMED), counted(others, 'other rule')] : names;
  },
  size: () => 1,
  restrict: () => [],
  describes: true,
};

export const removeRules: OperationKind<OperationOf<'remove-rules'>> = {
  schema: ({ ids }) => ({ rules: ids }),
  apply: (sheet, { rules }) => ({ effects: [RULES], inverse: inverseOf(sheet.rules.take(rules), []) }),
  words: ({ rules }) => [`${counted(rules.length, 'rule')} deleted`],
  size: () => 1,
  restrict: () => [],
};
