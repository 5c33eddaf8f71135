import { generateNKeysBetween } from 'fractional-indexing';
import type { StoredRule } from './stored-rule';
import type { Rule } from './rule';

/** Rules as a sheet keeps them, with order keys that put them in this order of precedence. */
export function storedInOrder(rules: readonly Rule[]): StoredRule[] {
  const keys = generateNKeysBetween(null, null, rules.length);
  return rules.map((rule, at) => ({ id: rule.id, key: keys[at]!, rule }));
}
