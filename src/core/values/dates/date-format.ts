import { itemAt } from '../item-at';
import { partsOf, secondsOf, weekdayOf, rolledSerial } from './calendar';

const FIELD = /'((?:[^']|'')*)'|([a-zA-Z])\2*|[^a-zA-Z']+/gy;
const MONTHS = 'January February March April May June July August September October November December'.split(' ');
const DAYS = 'Monday Tuesday Wednesday Thursday Friday Saturday Sunday'.split(' ');

interface Moment {
  readonly serial: number;
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly seconds: number;
}

const padded = (value: number, width: number): string => String(value).padStart(width, '0');

/** Fields of UTS #35 date patterns, by letter, for a width in letters. */
const FIELDS: Readonly<Record<string, (moment: Moment, width: number) => string>> = {
  y: ({ year }, width) => (width === 2 ? padded(year % 100, 2) : padded(year, width)),
  M: ({ month }, width) =>
    width >= 4 ? itemAt(MONTHS, month - 1) : width === 3 ? itemAt(MONTHS, month - 1).slice(0, 3) : padded(month, width),
  d: ({ day }, width) => padded(day, width),
  E: ({ serial }, width) =>
    width >= 4 ? itemAt(DAYS, weekdayOf(serial)) : itemAt(DAYS, weekdayOf(serial)).slice(0, 3),
  Q: ({ month }, width) => (width >= 3 ? `Q${Math.ceil(month / 3)}` : padded(Math.ceil(month / 3), width)),
  D: ({ serial, year }, width) => padded(Math.floor(serial) - rolledSerial(year, 1, 0), width),
  H: ({ seconds }, width) => padded(Math.floor(seconds / 3600), width),
  h: ({ seconds }, width) => padded(((Math.floor(seconds / 3600) + 11) % 12) + 1, width),
  a: ({ seconds }) => (seconds < 43_200 ? 'AM' : 'PM'),
  m: ({ seconds }, width) => padded(Math.floor(seconds / 60) % 60, width),
  s: ({ seconds }, width) => padded(seconds % 60, width),
};

/**
 * A serial date by a UTS #35 date pattern such as `d MMM y` or `yyyy-MM-dd HH:mm` (English names); undefined where the
 * pattern has other letters.
 */
export function formatDate(serial: number, pattern: string): string | undefined {
  // Seconds are rounded, so the day may be the next one.
  const rounded = Math.round(serial * 86_400) / 86_400;
  const moment: Moment = { serial: rounded, ...partsOf(rounded + 1e-9), seconds: secondsOf(rounded) };
  let text = '';
  for (const [whole, quoted, letter] of pattern.matchAll(FIELD)) {
    if (quoted !== undefined) text += quoted === '' ? "'" : quoted.replaceAll("''", "'");
    else if (letter === undefined) text += whole;
    else {
      const field = FIELDS[letter];
      if (!field) return undefined;
      text += field(moment, whole.length);
    }
  }
  return text;
}

/** True for patterns of dates: they hold letters of date fields outside quotes, and no digits of number patterns. */
export const isDatePattern = (pattern: string): boolean => {
  const bare = pattern.replace(/'(?:[^']|'')*'/g, '');
  return /[yMdEQDHhms]/.test(bare) && !/[#0]/.test(bare);
};
