import { itemAt } from '../../values/item-at';
import { numberText } from '../../values/number-text';
import type { Adviser } from './advice';
import { siblingIntervals, type Interval } from './siblings';

/** A gap is meant, such as a middle that needs no look, unless it is as narrow as this share of its ends. */
const NARROW = 0.02;

/** Numbers that fall between two thresholds that were meant to meet, such as "up to 4.99" and "from 5". */
export const gap: Adviser = ({ stored }) =>
  siblingIntervals(stored).flatMap((intervals) =>
    intervals.slice(1).flatMap((next, at) => {
      const before = itemAt(intervals, at);
      if (!isGap(before, next)) return [];
      const [low, high] = [numberText(before.high), numberText(next.low)];
      const where = low === high ? `${low} itself is` : `numbers between ${low} and ${high} are`;
      return [
        {
          rules: [before.stored.id, next.stored.id],
          cells: [],
          message: `Between “${before.stored.rule.name}” and “${next.stored.rule.name}” there is a gap: ${where} in neither. Bands leave none.`,
          repair: null,
        },
      ];
    }),
  );

function isGap(before: Interval, next: Interval): boolean {
  if (!Number.isFinite(before.high) || !Number.isFinite(next.low)) return false;
  if (before.high === next.low) return !before.takesHigh && !next.takesLow;
  const width = next.low - before.high;
  return width > 0 && width <= NARROW * Math.max(Math.abs(next.low), Math.abs(before.high));
}
