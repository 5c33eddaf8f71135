import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';
import type { StoredRule } from './stored-rule';
import type { Rule } from './rule';

/** Rules in their stored form, with order keys in this order of precedence. */
export function storedInOrder(rules: readonly Rule[]): StoredRule[] {
  const keys = generateNKeysBetween(null, null, rules.length);
  return rules.map((rule, at) => ({ id: rule.id, key: itemAt(keys, at), rule }));
}
