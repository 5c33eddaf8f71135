import { scaleUtc } from 'd3-scale';

const DAY_MS = 86_400_000;
/** Serial date of the first day of Unix time. */
const EPOCH = 25_569;

/** About this many round dates between two serial dates, each with a short text. */
export function dateTicks([from, to]: readonly [number, number], count: number): { value: number; says: string }[] {
  const scale = scaleUtc([(from - EPOCH) * DAY_MS, (to - EPOCH) * DAY_MS], [0, 1]);
  const days = to - from;
  const format = scale.tickFormat(count, days > 500 ? '%b %Y' : days > 60 ? '%b' : '%-d %b');
  return scale.ticks(count).map((date) => ({ value: date.getTime() / DAY_MS + EPOCH, says: format(date) }));
}
