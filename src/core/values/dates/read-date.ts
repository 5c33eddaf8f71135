import { itemAt } from '../item-at';
import { serialFromParts } from './date-serial';

/** Which of day and month stands first in dates such as 8/3/2026. Without it such text stays text. */
export type DateOrder = 'dmy' | 'mdy';

const MONTHS = 'january february march april may june july august september october november december'.split(' ');
/** Characters of a date, spaces included. */
const MAX_LENGTH = 100;
const TIME = String.raw`(?:[T ]\s*(\d{1,2}):(\d{2})(?::(\d{2}))?)?`;
const ISO = new RegExp(String.raw`^(\d{4})-(\d{1,2})-(\d{1,2})${TIME}$`);
const NAMED = new RegExp(String.raw`^(\d{1,2})\s+([a-z]+)\.?,?\s+(\d{4})${TIME}$`, 'i');
const NUMERIC = new RegExp(String.raw`^(\d{1,2})([/.-])(\d{1,2})\2(\d{4})${TIME}$`);

/**
 * Reads a typed date: `2026-03-08`, `2026-3-8 14:30`, `2026-03-08T14:30:05`, `8 Mar 2026`, `8 March 2026`, and day and
 * month as numbers in the given order. Returns days since 1899-12-30, or undefined for anything else: two-digit
 * years, days that do not exist, an order that is not known.
 */
export function readDate(text: string, order?: DateOrder): number | undefined {
  if (text.length > MAX_LENGTH) return undefined;
  const iso = ISO.exec(text);
  if (iso) return assemble({ year: iso[1], month: iso[2], day: iso[3] }, iso.slice(4));
  const named = NAMED.exec(text);
  if (named) return assemble({ year: named[3], month: monthNumber(itemAt(named, 2)), day: named[1] }, named.slice(4));
  const numeric = order && NUMERIC.exec(text);
  if (!numeric) return undefined;
  const [, first, , second, year] = numeric;
  return assemble(
    order === 'dmy' ? { year, month: second, day: first } : { year, month: first, day: second },
    numeric.slice(5),
  );
}

interface DateParts {
  readonly year: string | undefined;
  readonly month: string | number | undefined;
  readonly day: string | undefined;
}

function assemble({ year, month, day }: DateParts, time: readonly (string | undefined)[]): number | undefined {
  const [hour = 0, minute = 0, second = 0] = time.map((part) => Number(part ?? 0));
  if (month === undefined || hour > 23 || minute > 59 || second > 59) return undefined;
  return serialFromParts({
    year: Number(year),
    month: Number(month),
    day: Number(day),
    seconds: hour * 3600 + minute * 60 + second,
  });
}

function monthNumber(word: string): number | undefined {
  const lower = word.toLowerCase();
  const at = MONTHS.findIndex(
    (month) => month === lower || month.slice(0, 3) === lower || (lower === 'sept' && month === 'september'),
  );
  return at < 0 ? undefined : at + 1;
}
