import { bin, bisectRight, deviation, max, min, range } from 'd3-array';
import { itemAt, lastItem } from '../values/item-at';
import { calendarEdges } from './calendar-edges';
import { quantileOfSorted } from './quantile';

export interface Bin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  /** How many of them have each outcome, by its number. */
  readonly outcomes: readonly number[];
}

/** The facts about a rule's numbers that the bench uses. */
export interface ValueProfile {
  readonly numbers: number;
  readonly blanks: number;
  /** Cells that hold neither a number nor nothing. */
  readonly others: number;
  readonly least: number;
  readonly lowerQuartile: number;
  readonly median: number;
  readonly upperQuartile: number;
  readonly greatest: number;
  readonly mean: number;
  /** Standard deviation of the sample; NaN of fewer than two numbers. */
  readonly deviation: number;
  /** At each percent from 0 to 100. */
  readonly percentiles: readonly number[];
  readonly commonText: string | null;
  /** Bins with round edges, for dates those of the calendar, from the least number to the greatest. */
  readonly bins: readonly Bin[];
}

/** Numbers with the bin of each, and the outcome that a rule gives it, -1 for none. */
export interface JudgedNumbers {
  readonly binOf: Uint16Array;
  readonly outcomes: Int32Array;
}

interface Counted extends Pick<ValueProfile, 'blanks' | 'others' | 'mean' | 'commonText'> {
  /** Edges of the bins, from the first to past the last number; round ones that are equally far apart where absent. */
  readonly edges?: readonly number[] | undefined;
}

/** Describes numbers in rising order; the counts of the other cells come from the caller. No bin has outcomes yet. */
export function describeValues(sorted: Float64Array, { edges, ...rest }: Counted): ValueProfile {
  const at = (p: number) => quantileOfSorted(sorted, p);
  const bins = sorted.length ? binsOf(sorted, edges) : [];
  return {
    numbers: sorted.length,
    ...rest,
    least: min(sorted) ?? NaN,
    lowerQuartile: at(0.25),
    median: at(0.5),
    upperQuartile: at(0.75),
    greatest: max(sorted) ?? NaN,
    deviation: deviation(sorted) ?? NaN,
    percentiles: sorted.length ? range(0, 101).map((percent) => at(percent / 100)) : [],
    bins: bins.map((members) => ({ from: members.x0!, to: members.x1!, count: members.length, outcomes: [] })),
  };
}

/** Bins of numbers, about. */
const BINS = 48;

/** Edges of bins from the least number to the greatest: those of the calendar for dates, else round ones. */
export function binEdges(least: number, greatest: number, isDated: boolean): readonly number[] {
  if (isDated) return calendarEdges(least, greatest);
  const made = bin<number, number>().thresholds(BINS)([least, greatest]);
  return [...made.map(({ x0 = NaN }) => x0), lastItem(made).x1 ?? NaN];
}

function binsOf(sorted: Float64Array, edges: readonly number[] | undefined) {
  const bins = bin<number, number>();
  if (!edges) return bins.thresholds(BINS)(sorted);
  return bins.domain([itemAt(edges, 0), lastItem(edges)]).thresholds(edges.slice(1, -1))(sorted);
}

/** The bin that each number belongs to, by its place. */
export function binsAt(bins: readonly Bin[], numbers: Float64Array): Uint16Array {
  const edges = Float64Array.from(bins, ({ to }) => to);
  // A number on an edge belongs to the bin that begins there; the last bin takes its own end.
  return Uint16Array.from(numbers, (number) => Math.min(bisectRight(edges, number), bins.length - 1));
}

/** The bins with the outcomes of the numbers in them. */
export function withOutcomes(bins: readonly Bin[], { binOf, outcomes }: JudgedNumbers): Bin[] {
  const tallies: number[][] = bins.map(() => []);
  for (let index = 0; index < outcomes.length; index++) {
    const outcome = outcomes[index]!;
    if (outcome < 0) continue;
    const tally = tallies[binOf[index]!]!;
    tally[outcome] = (tally[outcome] ?? 0) + 1;
  }
  return bins.map((bin, index) => ({ ...bin, outcomes: Array.from(itemAt(tallies, index), (count) => count ?? 0) }));
}

/** The nearest values at or below and above a threshold, and how many values equal it. NaN where there is none. */
export function nearestTo(sorted: Float64Array, threshold: number): { below: number; at: number; above: number } {
  const from = lowerBound(sorted, (value) => value < threshold);
  const to = lowerBound(sorted, (value) => value <= threshold);
  return { below: from > 0 ? sorted[from - 1]! : NaN, at: to - from, above: to < sorted.length ? sorted[to]! : NaN };
}

/** Index of the first value for which `before` no longer holds. */
function lowerBound(sorted: Float64Array, before: (value: number) => boolean): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (before(sorted[middle]!)) low = middle + 1;
    else high = middle;
  }
  return low;
}
