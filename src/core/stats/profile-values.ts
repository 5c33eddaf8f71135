import { bin, max, min } from 'd3-array';
import { quantileOfSorted } from './quantile';

export interface Bin {
  readonly from: number;
  readonly to: number;
  readonly count: number;
}

/** What the bench needs to know of the numbers that a rule reads. */
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
  /** Equal bins with round edges, from the least number to the greatest. */
  readonly bins: readonly Bin[];
}

/** Describes numbers given in rising order; the counts of the rest come from the caller. */
export function profileSorted(sorted: Float64Array, { blanks, others, mean }: { blanks: number; others: number; mean: number }): ValueProfile {
  const at = (p: number) => quantileOfSorted(sorted, p);
  const bins = sorted.length ? bin<number, number>().thresholds(48)(sorted) : [];
  return {
    numbers: sorted.length,
    blanks,
    others,
    least: min(sorted) ?? NaN,
    lowerQuartile: at(0.25),
    median: at(0.5),
    upperQuartile: at(0.75),
    greatest: max(sorted) ?? NaN,
    mean,
    bins: bins.map((members) => ({ from: members.x0!, to: members.x1!, count: members.length })),
  };
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
