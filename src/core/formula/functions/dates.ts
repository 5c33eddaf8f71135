// Date and time functions (ISO/IEC 26300-4, 6.10). A date is a count of days since 1899-12-30, the time of day its
// fraction.
import { isoWeekOf, monthsLater, partsOf, rolledSerial, secondsOf, weekdayOf } from '../../values/dates/calendar';
import { FormulaError, SerialDate, finite, toSerial, type Operand } from '../values/formula-value';
import { spend, type EvalCursor } from '../values/place';
import { forEachValue } from '../values/read-cells';
import { anything, date, define, FARTHEST_DAY, volatileOn, integer, number, optional, text } from './function-spec';

const dated = (serial: number): SerialDate | FormulaError =>
  Math.abs(serial) <= FARTHEST_DAY ? new SerialDate(serial) : FormulaError.number;

const part = (name: string, says: string, of: (serial: number) => number) =>
  define({ name, says }, [date('date')], ([serial]) => of(serial));

/** Which weekday a numbering begins with, 0 for Monday. */
const FIRST_DAY: Readonly<Record<number, number>> = {
  1: 6,
  2: 0,
  3: 0,
  11: 0,
  12: 1,
  13: 2,
  14: 3,
  15: 4,
  16: 5,
  17: 6,
};

function weekday(serial: number, kind: number): number | FormulaError {
  const first = FIRST_DAY[kind];
  if (first === undefined) return FormulaError.number;
  return ((weekdayOf(serial) - first + 7) % 7) + (kind === 3 ? 0 : 1);
}

/** Weeks of a year of which the first holds its first day; 21 (and 150) are the weeks of ISO 8601. */
function weekNumber(serial: number, kind: number): number | FormulaError {
  if (kind === 21 || kind === 150) return isoWeekOf(serial);
  const first = kind === 3 ? undefined : FIRST_DAY[kind];
  if (first === undefined) return FormulaError.number;
  const newYear = rolledSerial(partsOf(serial).year, 1, 1);
  return Math.floor((Math.floor(serial) - newYear + ((weekdayOf(newYear) - first + 7) % 7)) / 7) + 1;
}

/** Whole years, months or days between two dates, and what remains of them after whole months or years. */
function difference(from: number, to: number, unit: string): number | FormulaError {
  const [start, end] = [Math.floor(from), Math.floor(to)];
  if (start > end) return FormulaError.number;
  const [a, b] = [partsOf(start), partsOf(end)];
  const months = (b.year - a.year) * 12 + b.month - a.month - (b.day < a.day ? 1 : 0);
  switch (unit.toLowerCase()) {
    case 'd':
      return end - start;
    case 'm':
      return months;
    case 'y':
      return Math.floor(months / 12);
    case 'ym':
      return months % 12;
    case 'md':
      return b.day >= a.day ? b.day - a.day : end - rolledSerial(b.year, b.month - 1, a.day);
    case 'yd': {
      const anniversary = rolledSerial(b.year, a.month, a.day);
      return end - (anniversary > end ? rolledSerial(b.year - 1, a.month, a.day) : anniversary);
    }
    default:
      return FormulaError.value;
  }
}

function holidaysOf(operand: Operand, place: EvalCursor): ReadonlySet<number> | FormulaError {
  const days = new Set<number>();
  const error = forEachValue(operand, place, (value) => {
    if (value === null) return undefined;
    const serial = toSerial(value);
    if (typeof serial !== 'number') return serial;
    days.add(Math.floor(serial));
    return undefined;
  });
  return error ?? days;
}

const isWorkday = (serial: number, holidays: ReadonlySet<number>): boolean =>
  weekdayOf(serial) < 5 && !holidays.has(serial);

function workdaysBetween(from: number, to: number, holidays: ReadonlySet<number>): number {
  const [start, end] = [Math.floor(Math.min(from, to)), Math.floor(Math.max(from, to))];
  const weeks = Math.floor((end - start + 1) / 7);
  let count = weeks * 5;
  for (let day = start + weeks * 7; day <= end; day++) if (weekdayOf(day) < 5) count++;
  for (const day of holidays) if (day >= start && day <= end && weekdayOf(day) < 5) count--;
  return from > to ? -count : count;
}

function workdayAfter(
  from: number,
  days: number,
  { holidays, place }: { holidays: ReadonlySet<number>; place: EvalCursor },
): number {
  spend(place, Math.abs(days));
  const step = days < 0 ? -1 : 1;
  let day = Math.floor(from);
  for (let left = Math.abs(days); left > 0;) {
    day += step;
    if (isWorkday(day, holidays)) left--;
  }
  return day;
}

const noHolidays = optional(anything('holidays'), { operand: null });

export const DATES = [
  define(
    { name: 'DATE', says: 'the date of a year, month and day; parts out of range roll over' },
    [integer('year'), integer('month'), integer('day')],
    ([year, month, day]) =>
      Math.abs(year) > 9999 || Math.abs(month) > 120_000 || Math.abs(day) > 4_000_000
        ? FormulaError.number
        : dated(rolledSerial(year, month, day)),
  ),
  define(
    { name: 'DATEDIF', says: 'the time between two dates: "y", "m", "d", or what is left: "ym", "md", "yd"' },
    [date('from'), date('to'), text('unit')],
    ([from, to, unit]) => difference(from, to, unit),
  ),
  define(
    { name: 'DAYS', says: 'the days from one date to another' },
    [date('end'), date('start')],
    ([end, start]) => Math.floor(end) - Math.floor(start),
  ),
  part('DAY', 'the day of the month', (serial) => partsOf(serial).day),
  part('MONTH', 'the month, 1 to 12', (serial) => partsOf(serial).month),
  part('YEAR', 'the year', (serial) => partsOf(serial).year),
  part('HOUR', 'the hour, 0 to 23', (serial) => Math.floor(secondsOf(serial) / 3600)),
  part('MINUTE', 'the minute, 0 to 59', (serial) => Math.floor(secondsOf(serial) / 60) % 60),
  part('SECOND', 'the second, 0 to 59', (serial) => secondsOf(serial) % 60),
  define(
    { name: 'TIME', says: 'a time of day as the fraction of a day' },
    [number('hours'), number('minutes'), number('seconds')],
    ([hours, minutes, seconds]) => finite((hours * 3600 + minutes * 60 + seconds) / 86_400),
  ),
  define(
    { name: 'EDATE', says: 'the same day so many months later, or the last of a shorter month' },
    [date('date'), integer('months')],
    ([serial, months]) => dated(monthsLater(serial, months)),
  ),
  define(
    { name: 'EOMONTH', says: 'the last day of the month so many months later' },
    [date('date'), integer('months')],
    ([serial, months]) => {
      const { year, month } = partsOf(serial);
      return dated(rolledSerial(year, month + months + 1, 0));
    },
  ),
  part('ISOWEEKNUM', 'the week of the year by ISO 8601', isoWeekOf),
  define(
    { name: 'WEEKDAY', says: 'the day of the week: 1 from Sunday, 2 from Monday, 3 from Monday as 0' },
    [date('date'), optional(integer('kind'), 1)],
    ([serial, kind]) => weekday(serial, kind),
  ),
  define(
    { name: 'WEEKNUM', says: 'the week of the year: 1 weeks from Sunday, 2 from Monday, 21 by ISO 8601' },
    [date('date'), optional(integer('kind'), 1)],
    ([serial, kind]) => weekNumber(serial, kind),
  ),
  define(
    {
      name: 'NETWORKDAYS',
      says: 'the days from Monday to Friday from one date to another, both included, less holidays',
    },
    [date('from'), date('to'), noHolidays],
    ([from, to, { operand }], place) => {
      const holidays = holidaysOf(operand, place);
      return holidays instanceof FormulaError ? holidays : workdaysBetween(from, to, holidays);
    },
  ),
  define(
    { name: 'WORKDAY', says: 'the date so many working days later' },
    [date('from'), integer('days'), noHolidays],
    ([from, days, { operand }], place) => {
      const holidays = holidaysOf(operand, place);
      if (holidays instanceof FormulaError) return holidays;
      return Math.abs(days) > FARTHEST_DAY ? FormulaError.number : dated(workdayAfter(from, days, { holidays, place }));
    },
  ),
  volatileOn(
    'clock',
    define({ name: 'NOW', says: 'this moment' }, [], (_, { context }) => dated(context.now)),
  ),
  volatileOn(
    'clock',
    define({ name: 'TODAY', says: 'today' }, [], (_, { context }) => dated(Math.floor(context.now))),
  ),
];
