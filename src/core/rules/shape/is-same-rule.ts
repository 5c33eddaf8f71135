import isDeepEqual from 'fast-deep-equal';
import type { Rule } from './rule';

/** True where two rules say the same; their keys may come in another order from the database. */
export const isSameRule = (one: Rule, other: Rule): boolean => one === other || isDeepEqual(one, other);
