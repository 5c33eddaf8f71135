import { numberText } from '../../values/number-text';
import type { Adviser } from './advice';
import { siblingIntervals, type Interval } from './siblings';

/** Numbers that two thresholds over the same cells both take, where neither lies within the other. */
export const overlap: Adviser = ({ stored }) =>
  siblingIntervals(stored).flatMap((intervals) =>
    intervals.flatMap((next, at) =>
      intervals.slice(0, at).flatMap((before) => {
        if (!overlaps(before, next)) return [];
        const [low, high] = [numberText(next.low), numberText(before.high)];
        const which = low === high ? `${low} is` : `numbers from ${low} to ${high} are`;
        return [
          {
            rules: [before.stored.id, next.stored.id],
            cells: [],
            message: `“${before.stored.rule.name}” and “${next.stored.rule.name}” overlap: ${which} in both, and the first of them wins.`,
            repair: null,
          },
        ];
      }),
    ),
  );

function overlaps(before: Interval, next: Interval): boolean {
  const isInside = next.high <= before.high || before.low >= next.low;
  if (isInside) return false;
  return next.low < before.high || (next.low === before.high && before.takesHigh && next.takesLow);
}
