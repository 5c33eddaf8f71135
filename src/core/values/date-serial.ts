const MS_PER_DAY = 86_400_000;
/** 1899-12-30 in milliseconds of the Unix epoch: day 0 of serial dates. */
const EPOCH_MS = Date.UTC(1899, 11, 30);

export interface DateParts {
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  readonly day: number;
  /** Seconds since midnight. */
  readonly seconds?: number;
}

/** Days since 1899-12-30 of a calendar date (proleptic Gregorian), or undefined where no such day exists. */
export function serialFromParts({ year, month, day, seconds = 0 }: DateParts): number | undefined {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  if (date.getUTCFullYear() !== year || date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return undefined;
  return (date.getTime() - EPOCH_MS) / MS_PER_DAY + seconds / 86_400;
}

/** ISO 8601 text of a serial date: `2026-03-08`, with `T14:30:00` where it has a time of day (rounded to the second). */
export function isoFromSerial(serial: number): string {
  const date = new Date(EPOCH_MS + Math.round(serial * 86_400) * 1000);
  if (Number.isNaN(date.getTime())) return '';
  const iso = date.toISOString();
  return serial % 1 === 0 ? iso.slice(0, 10) : iso.slice(0, 19);
}
