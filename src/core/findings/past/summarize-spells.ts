import type { FieldId, RowId } from '../../sheet/ids';
import { quantileOfSorted } from '../../stats/quantile';
import { spansOfTime } from './spans-of-time';
import type { Spell } from './spells';

/** A part of the time: what entered and left in it, and how many cells had the look at its end. */
export interface PastBin {
  readonly from: number;
  readonly to: number;
  readonly entered: number;
  readonly left: number;
  readonly count: number;
}

/** A cell that a rule would have found. */
export interface PastCell {
  readonly row: RowId;
  readonly field: FieldId;
  /** How often it entered, and how long it stayed in all, in days up to now. */
  readonly times: number;
  readonly days: number;
  readonly since: number;
  readonly isNow: boolean;
}

export interface PastSummary {
  readonly from: number;
  readonly to: number;
  readonly bins: readonly PastBin[];
  /** How many cells had the look when the past begins. */
  readonly before: number;
  readonly entered: number;
  readonly left: number;
  /** Cells that entered. */
  readonly cells: number;
  /** Days that a cell stayed, in the middle, of those that have left; NaN where none has. */
  readonly medianDays: number;
  /** Cells that entered more than once. */
  readonly flapped: number;
  /** Those found most often, then those that stayed longest. */
  readonly most: readonly PastCell[];
}

const MAX_CELLS = 12;

const countIn = (counts: Int32Array, at: number): void => {
  counts[at] = (counts[at] ?? 0) + 1;
};

/** What a rule would have found from one moment to another, by the times that each cell had its look. */
export function summarizeSpells(
  spells: readonly Spell[],
  { from, to }: { readonly from: number; readonly to: number },
): PastSummary {
  const spans = spansOfTime(from, to);
  const [entered, left] = [new Int32Array(spans.edges.length), new Int32Array(spans.edges.length)];
  let before = 0;
  const stays: number[] = [];
  const cells = new Map<string, PastCell>();
  for (const { row, field, from: since, to: until } of spells) {
    const isOld = since <= from;
    if (isOld) before++;
    else countIn(entered, spans.at(since));
    if (until <= to) countIn(left, spans.at(until));
    if (until <= to && !isOld) stays.push(until - since);
    const key = `${row} ${field}`;
    const known = cells.get(key);
    cells.set(key, {
      row,
      field,
      times: (known?.times ?? 0) + (isOld ? 0 : 1),
      days: (known?.days ?? 0) + Math.min(until, to) - since,
      since: Math.min(known?.since ?? Infinity, since),
      isNow: (known?.isNow ?? false) || until > to,
    });
  }
  let count = before;
  const bins = spans.edges.map((begin, at): PastBin => {
    const [came, went] = [entered[at] ?? 0, left[at] ?? 0];
    count += came - went;
    return { from: begin, to: begin + spans.width, entered: came, left: went, count };
  });
  const found = [...cells.values()];
  return {
    from,
    to,
    bins,
    before,
    entered: entered.reduce((sum, each) => sum + each, 0),
    left: left.reduce((sum, each) => sum + each, 0),
    cells: found.filter(({ times }) => times > 0).length,
    medianDays: quantileOfSorted(Float64Array.from(stays).sort(), 0.5),
    flapped: found.filter(({ times, since }) => times > (since <= from ? 0 : 1)).length,
    most: found.sort((a, b) => b.times - a.times || b.days - a.days).slice(0, MAX_CELLS),
  };
}
