import type { Rule } from './rule';

/** Rules that follow one another and have the same group, or one rule that has none. */
export interface RuleGroup<E> {
  readonly name: string | null;
  readonly entries: readonly E[];
}

/**
 * The rules in their order, those of one group together unless another stands between: precedence is never hidden by a
 * group.
 */
export function ruleGroups<E>(entries: readonly E[], groupOf: (entry: E) => string | null | undefined): RuleGroup<E>[] {
  const groups: { name: string | null; entries: E[] }[] = [];
  for (const entry of entries) {
    const name = groupOf(entry) ?? null;
    const last = groups.at(-1);
    if (last && name !== null && last.name === name) last.entries.push(entry);
    else groups.push({ name, entries: [entry] });
  }
  return groups;
}

/**
 * The group of a rule that is moved between two others: that of both where they share one, its own where it stands
 * beside one of it, else none.
 */
export function groupBetween(
  own: string | undefined,
  before: string | undefined,
  after: string | undefined,
): string | undefined {
  if (before !== undefined && before === after) return before;
  return own !== undefined && (own === before || own === after) ? own : undefined;
}

/** The same rule in a group, or in none. */
export function inGroup({ group: _, ...rule }: Rule, group: string | undefined): Rule {
  return group === undefined ? rule : { ...rule, group };
}
