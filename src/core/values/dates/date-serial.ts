import { partsOf, rolledSerial, type CalendarDay } from './calendar';

/** 1899-12-30 in milliseconds of the Unix epoch: day 0 of serial dates. */
const EPOCH_MS = Date.UTC(1899, 11, 30);

export interface DateParts extends CalendarDay {
  /** Seconds since midnight. */
  readonly seconds?: number;
}

/** Days since 1899-12-30 of a calendar date (proleptic Gregorian), or undefined where no such day exists. */
export function serialFromParts({ year, month, day, seconds = 0 }: DateParts): number | undefined {
  const serial = rolledSerial(year, month, day);
  const rolled = partsOf(serial);
  if (rolled.year !== year || rolled.month !== month || rolled.day !== day) return undefined;
  return serial + seconds / 86_400;
}

/**
 * ISO 8601 text of a serial date: `2026-03-08`, with `T14:30:00` where it has a time of day (rounded to the second).
 */
export function isoFromSerial(serial: number): string {
  const date = new Date(EPOCH_MS + Math.round(serial * 86_400) * 1000);
  if (Number.isNaN(date.getTime())) return '';
  const iso = date.toISOString();
  return serial % 1 === 0 ? iso.slice(0, 10) : iso.slice(0, 19);
}

/** The pattern (UTS #35) in which a date is shown that has no format: the day, and the time where there is one. */
export const plainDateFormat = (serial: number): string => (serial % 1 === 0 ? 'yyyy-MM-dd' : 'yyyy-MM-dd HH:mm:ss');
