import { Moments } from '../stats/moments';
import { nearestTo, profileValues, type ValueProfile } from '../stats/profile-values';
import { TAG } from '../values/cell-value';
import type { RuleId } from '../sheet/ids';
import type { Evaluation } from './evaluation';
import { readCells } from './reach';
import { isProblem, type Reads } from './rule';

/** Distinct texts that are told. */
const MOST_TEXTS = 40;

export interface RuleProfile {
  readonly profile: ValueProfile;
  /** The texts that are shown, the most frequent first, with the outcome that the rule gives the first cell of each, -1 for none. */
  readonly texts: readonly { readonly text: string; readonly count: number; readonly outcome: number }[];
  readonly dates: number;
  /** One entry a threshold asked for: the nearest values on either side, and how many are equal to it. */
  readonly nearest: readonly { readonly below: number; readonly at: number; readonly above: number }[];
}

/**
 * Describes the cells that are read: their numbers, with the outcome that the rule at work under this id gives them, and what
 * else there is. Cost: a pass over the cells read, and sorting their numbers.
 */
export function profileRule({ sheet, running }: Evaluation, asked: { rule: RuleId; reads: Reads; thresholds: readonly number[] }): RuleProfile {
  const read = readCells(asked.reads, sheet);
  const judge = running.find(({ rule }) => rule.id === asked.rule);
  const numbers: number[] = [];
  const outcomes: number[] = [];
  const texts = new Map<string, { count: number; outcome: number }>();
  let dates = 0;
  const moments = new Moments('mean');
  let blanks = 0;
  let others = 0;
  for (const { column, slots } of isProblem(read) ? [] : read) {
    const store = sheet.columns[column]!;
    slots.forEach((slot) => {
      const number = store.numbers[slot]!;
      if (!Number.isNaN(number)) {
        numbers.push(number);
        outcomes.push(judge?.outcomeAt(column, slot) ?? -1);
        moments.add(number);
      } else if (store.tags[slot] === TAG.blank) blanks++;
      else others++;
      if (store.tags[slot] === TAG.date) dates++;
      if (store.tags[slot] !== TAG.text) return;
      const text = store.entryAt(slot).shown.trim();
      const known = texts.get(text);
      if (known) known.count++;
      else texts.set(text, { count: 1, outcome: judge?.outcomeAt(column, slot) ?? -1 });
    });
  }
  const judged = { numbers: Float64Array.from(numbers), outcomes: Int32Array.from(outcomes) };
  const sorted = judged.numbers.toSorted();
  const frequent = [...texts].map(([text, found]) => ({ text, ...found })).sort((a, b) => b.count - a.count);
  const commonText = frequent[0]?.text ?? null;
  return {
    profile: profileValues(sorted, judged, { blanks, others, mean: moments.mean, commonText }),
    texts: frequent.slice(0, MOST_TEXTS),
    dates,
    nearest: asked.thresholds.map((threshold) => nearestTo(sorted, threshold)),
  };
}
