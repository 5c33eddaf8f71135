import type { Rule } from './rule';

/** A rule before it has an id, a name and a place among others. */
export type RuleIdea = Pick<Rule, 'reads' | 'when' | 'paints' | 'look' | 'settles'>;
