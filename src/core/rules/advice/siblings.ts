import equal from 'fast-deep-equal';
import { operandList } from '../terms';
import type { StoredRule } from '../shape/stored-rule';
import type { CompareWhen } from '../kinds/compare';

/** The numbers that a threshold takes: from `low` to `high`, each end with or without itself. */
export interface Interval {
  readonly stored: StoredRule;
  readonly low: number;
  readonly high: number;
  readonly takesLow: boolean;
  readonly takesHigh: boolean;
}

/** Rules with plain numeric thresholds over the same cells, in groups, each in rising order. */
export function siblingIntervals(stored: readonly StoredRule[]): Interval[][] {
  const groups: { reads: unknown; intervals: Interval[] }[] = [];
  for (const one of stored) {
    const interval = one.rule.on && one.rule.when.kind === 'compare' ? intervalOf(one, one.rule.when) : undefined;
    if (!interval) continue;
    let group = groups.find(({ reads }) => equal(reads, one.rule.reads));
    if (!group) groups.push((group = { reads: one.rule.reads, intervals: [] }));
    group.intervals.push(interval);
  }
  return groups.map(({ intervals }) => intervals.sort((a, b) => a.low - b.low || a.high - b.high));
}

function intervalOf(stored: StoredRule, { is, to, magnitude }: CompareWhen): Interval | undefined {
  if (magnitude) return undefined;
  const ends = operandList(to);
  if (!ends.every((end) => typeof end === 'number')) return undefined;
  const [first = NaN, second = first] = ends;
  switch (is) {
    case '<':
    case '<=':
      return { stored, low: -Infinity, high: first, takesLow: false, takesHigh: is === '<=' };
    case '>':
    case '>=':
      return { stored, low: first, high: Infinity, takesLow: is === '>=', takesHigh: false };
    case 'between':
      return { stored, low: Math.min(first, second), high: Math.max(first, second), takesLow: true, takesHigh: true };
    default:
      return undefined;
  }
}
