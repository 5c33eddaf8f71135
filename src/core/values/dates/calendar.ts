/** Day 0 of serial dates, 1899-12-30, in days of the Unix epoch. */
const EPOCH_DAY = Date.UTC(1899, 11, 30) / 86_400_000;

export interface CalendarDay {
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  readonly day: number;
}

/** The date of a serial number (proleptic Gregorian calendar), its time of day aside. */
export function partsOf(serial: number): CalendarDay {
  const date = new Date((Math.floor(serial) + EPOCH_DAY) * 86_400_000);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}

/** The serial number of a date whose parts may be out of range: they roll over, both ways. */
export function rolledSerial(year: number, month: number, day: number): number {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date.getTime() / 86_400_000 - EPOCH_DAY;
}

/** The same day a number of months later, or the last day of a month that is too short. */
export function monthsLater(serial: number, months: number): number {
  const { year, month, day } = partsOf(serial);
  const last = partsOf(rolledSerial(year, month + months + 1, 0)).day;
  return rolledSerial(year, month + months, Math.min(day, last));
}

/** Day of the week, 0 for Monday. 1899-12-30 was a Saturday. */
export const weekdayOf = (serial: number): number => (((Math.floor(serial) + 5) % 7) + 7) % 7;

/** Week of the year by ISO 8601: weeks begin on Monday, and the first one holds the year's first Thursday. */
export function isoWeekOf(serial: number): number {
  const thursday = Math.floor(serial) - weekdayOf(serial) + 3;
  return Math.floor((thursday - rolledSerial(partsOf(thursday).year, 1, 1)) / 7) + 1;
}

/** Seconds since midnight, rounded to the second; the last half second belongs to the day before. */
export function secondsOf(serial: number): number {
  return Math.round((serial - Math.floor(serial)) * 86_400) % 86_400;
}
