import { itemAt, lastItem } from '../../values/item-at';
import { Moments } from '../../stats/moments';
import { calendarEdges } from '../../stats/calendar-edges';
import { binsAt, describeValues, nearestTo, withOutcomes, type ValueProfile } from '../../stats/profile-values';
import { TAG } from '../../values/cell-value';
import type { RuleId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import type { Evaluation } from '../evaluate/evaluation';
import type { RunningRule } from '../evaluate/running-rule';
import { readCells } from '../compile/reach';
import { isProblem, type Reads } from '../terms';

/** Distinct texts that are listed. */
const MAX_TEXTS = 40;

export interface RuleProfile {
  readonly profile: ValueProfile;
  /**
   * The texts that are shown, the most frequent first, with the outcome that the rule gives the first cell of each, -1
   * for none.
   */
  readonly texts: readonly { readonly text: string; readonly count: number; readonly outcome: number }[];
  readonly dates: number;
  /** The day it is in the sheet's time zone, as a serial date. */
  readonly today: number;
  /** True where it is of all records of a table, of which only some are in the sheet. */
  readonly isOfAll?: boolean;
  /** One entry a threshold asked for: the nearest values on either side, and how many are equal to it. */
  readonly nearest: readonly { readonly below: number; readonly at: number; readonly above: number }[];
}

/** A summary of the cells that a rule reads, independent of its condition. */
export interface ReadValues {
  readonly profile: ValueProfile;
  readonly sorted: Float64Array;
  /** By number in the order of reading: its bin, its column and its slot. */
  readonly binOf: Uint16Array;
  readonly columns: Int32Array;
  readonly slots: Int32Array;
  readonly texts: readonly {
    readonly text: string;
    readonly count: number;
    readonly column: number;
    readonly slot: number;
  }[];
  readonly dates: number;
}

/**
 * Reads the cells that a rule reads. Cost: a pass over them, and sorting their numbers; callers cache it while no cell
 * changes.
 */
export function readValues(sheet: Sheet, reads: Reads): ReadValues {
  const read = readCells(reads, sheet);
  const [numbers, columns, slotsRead]: [number[], number[], number[]] = [[], [], []];
  const texts = new Map<string, { count: number; column: number; slot: number }>();
  const moments = new Moments('mean');
  let [dates, blanks, others] = [0, 0, 0];
  for (const { column, slots } of isProblem(read) ? [] : read) {
    const store = sheet.column(column);
    slots.forEach((slot) => {
      const number = store.numberAt(slot);
      if (!Number.isNaN(number)) {
        numbers.push(number);
        columns.push(column);
        slotsRead.push(slot);
        moments.add(number);
      } else if (store.tags[slot] === TAG.blank) blanks++;
      else others++;
      if (store.tags[slot] === TAG.date) dates++;
      if (store.tags[slot] !== TAG.text) return;
      const text = store.entryAt(slot).shown.trim();
      const known = texts.get(text);
      if (known) known.count++;
      else texts.set(text, { count: 1, column, slot });
    });
  }
  const frequent = [...texts].map(([text, found]) => ({ text, ...found })).sort((a, b) => b.count - a.count);
  const sorted = Float64Array.from(numbers).sort();
  const edges = dates > numbers.length / 2 ? calendarEdges(itemAt(sorted, 0), lastItem(sorted)) : undefined;
  const profile = describeValues(sorted, {
    edges,
    blanks,
    others,
    mean: moments.mean,
    commonText: frequent[0]?.text ?? null,
  });
  return {
    profile,
    sorted,
    binOf: binsAt(profile.bins, Float64Array.from(numbers)),
    columns: Int32Array.from(columns),
    slots: Int32Array.from(slotsRead),
    texts: frequent.slice(0, MAX_TEXTS),
    dates,
  };
}

/**
 * The outcomes of the active rule with an id over the values that it reads, and the nearest of them to some thresholds.
 * Cost: a look at each number.
 */
export function profileRule(
  { activeRules, world }: Evaluation,
  asked: { rule: RuleId; thresholds: readonly number[] },
  values: ReadValues,
): RuleProfile {
  const judge = activeRules.find(({ rule }) => rule.id === asked.rule);
  const { profile, binOf, sorted, dates } = values;
  const outcomes = judge ? outcomesOf(judge, values) : new Int32Array(binOf.length).fill(-1);
  return {
    profile: { ...profile, bins: withOutcomes(profile.bins, { binOf, outcomes }) },
    texts: values.texts.map(({ text, count, column, slot }) => ({
      text,
      count,
      outcome: judge?.outcomeAt(column, slot) ?? -1,
    })),
    dates,
    today: Math.floor(world.formulas.now),
    nearest: asked.thresholds.map((threshold) => nearestTo(sorted, threshold)),
  };
}

/** The outcome of each number that was read: with each step of a dragged threshold, a look at all of them. */
function outcomesOf(judge: RunningRule, { columns, slots }: ReadValues): Int32Array {
  const outcomes = new Int32Array(slots.length).fill(-1);
  for (let from = 0; from < slots.length;) {
    const column = itemAt(columns, from);
    const found = judge.outcomes.get(column);
    let at = from;
    for (; columns[at] === column; at++) if (found) outcomes[at] = found.at(slots[at]!);
    from = at;
  }
  return outcomes;
}
