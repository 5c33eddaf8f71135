import { scaleUtc } from 'd3-scale';

const DAY_MS = 86_400_000;
/** Serial date of the first day of Unix time. */
const EPOCH = 25_569;

interface DateParts {
  readonly day?: 'numeric';
  readonly month: 'short';
  readonly year?: 'numeric';
  readonly timeZone: 'UTC';
}

/** Says a date of UTC with some of its parts. */
type SayDate = (date: Date, parts: DateParts) => string;

/** About this many round dates between two serial dates, each with a short text. */
export function dateTicks(
  [from, to]: readonly [number, number],
  count: number,
  say: SayDate,
): { value: number; says: string }[] {
  const scale = scaleUtc([(from - EPOCH) * DAY_MS, (to - EPOCH) * DAY_MS], [0, 1]);
  const days = to - from;
  const parts = { ...(days > 60 ? {} : DAY), ...MONTH, ...(days > 500 ? YEAR : {}), timeZone: 'UTC' } as const;
  return scale.ticks(count).map((date) => ({ value: date.getTime() / DAY_MS + EPOCH, says: say(date, parts) }));
}

const DAY = { day: 'numeric' } as const;
const MONTH = { month: 'short' } as const;
const YEAR = { year: 'numeric' } as const;
