import { itemAt } from '../../values/item-at';
import { numberLength } from './shortness';

/** An interval of numbers. */
export interface Interval {
  readonly low: number;
  readonly high: number;
  /** Whether its ends belong to it. */
  readonly takesLow: boolean;
  readonly takesHigh: boolean;
}

/** Parts that a power of ten is cut into, from the coarsest. */
const PARTS = [1, 2, 4, 10];
/** Steps from the size of the greatest end down: enough for twelve digits. */
const MAX_STEPS = 48;

/**
 * The numbers in an interval that a person would name as a limit: those with the fewest digits, so many at most, the
 * shortest first. None of an interval that holds no number.
 */
export function sensibleNumbers(interval: Interval, most: number): number[] {
  const { low, high, takesLow, takesHigh } = interval;
  if (!(low <= high) || !Number.isFinite(low) || !Number.isFinite(high)) return [];
  if (low === high) return takesLow && takesHigh ? [low] : [];
  const found = new Set<number>();
  const size = Math.max(Math.abs(low), Math.abs(high));
  let power = 10 ** Math.ceil(Math.log10(size));
  for (let step = 0; step < MAX_STEPS && found.size < most; step++) {
    const part = itemAt(PARTS, step % PARTS.length);
    if (step > 0 && part === 1) power /= 10;
    const width = power / part;
    // A step that is finer than the interval by far would have too many multiples in it.
    if ((high - low) / width > 20 * most) break;
    for (let at = Math.ceil(low / width); at <= Math.floor(high / width); at++) {
      const number = Number((at * width).toPrecision(12));
      if ((number > low || (takesLow && number === low)) && (number < high || (takesHigh && number === high)))
        found.add(number + 0);
    }
  }
  return [...found].sort((a, b) => numberLength(a) - numberLength(b) || a - b).slice(0, most);
}
