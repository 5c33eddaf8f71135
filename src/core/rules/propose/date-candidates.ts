import { rolledSerial, partsOf, weekdayOf } from '../../values/dates/calendar';
import { isoFromSerial } from '../../values/dates/date-serial';
import { readDate } from '../../values/dates/read-date';
import { TAG } from '../../values/cell-value';
import { keysOf } from '../../values/typed-keys';
import { DAYS_BY_TODAY, daysOf, runOfDays, unitOfCalendar, type DateWhen, type RelativeSpan } from '../kinds/date';
import { operandList, type Operand } from '../terms';
import type { Evidence, ExampleCell } from './evidence';
import { dayLength, numberLength, sumOf, testLength, textLength } from './shortness';

/** Tests by today that people write: runs of days of usual lengths, and units of the calendar. */
const USUAL_SPANS: readonly (keyof typeof DAYS_BY_TODAY | RelativeSpan)[] = [
  ...keysOf(DAYS_BY_TODAY),
  ...(['last', 'next'] as const).flatMap((which) => [
    ...[2, 3, 5, 7, 10, 14, 30, 60, 90].map((days) => runOfDays(which, days, 'day')),
    ...[3, 4, 6, 8].map((weeks) => runOfDays(which, weeks, 'week')),
    ...[1, 2, 3, 6].map((months) => runOfDays(which, months, 'month')),
    ...[1, 2].map((years) => runOfDays(which, years, 'year')),
  ]),
  ...(['week', 'month', 'quarter', 'year'] as const).flatMap((unit) =>
    (['this', 'previous', 'following'] as const).map((which) => unitOfCalendar(which, unit)),
  ),
];

/** Tests of the day that hold for all cells that are wanted and for none that is not. */
export function* dateCandidates(evidence: Evidence): Iterable<DateWhen> {
  const known = daysKnown(evidence);
  if (!known) return;
  const today = Math.floor(evidence.now);
  const firstWeekday = evidence.sheet.settings.firstWeekday ?? 0;
  if (!Number.isNaN(today))
    for (const is of USUAL_SPANS) {
      const [from, to] = daysOf(is, today, firstWeekday);
      const holds = (day: number): boolean => day >= from && day <= to;
      if (known.wanted.every(holds) && !known.others.some(holds)) yield { kind: 'date', is };
    }
  yield* dayCandidates(known);
}

/** Days that are tried as a limit, and at each end where there are two. */
const MAX_DAYS = 6;
const MAX_ENDS = 4;

interface DaysKnown {
  readonly wanted: readonly number[];
  readonly others: readonly number[];
}

/** The days of the examples: undefined where one that is wanted holds no date. */
function daysKnown({ sheet, yes, no }: Evidence): DaysKnown | undefined {
  const dayOf = ({ column, slot }: ExampleCell): number => {
    const store = sheet.column(column);
    return store.tags[slot] === TAG.date ? Math.floor(store.numberAt(slot)) : NaN;
  };
  const wanted = yes.map(dayOf);
  if (wanted.length === 0 || wanted.some(Number.isNaN)) return undefined;
  return { wanted, others: no.map(dayOf).filter((day) => !Number.isNaN(day)) };
}

/** Tests by days given: before, after, on one, or between two. */
function* dayCandidates({ wanted, others }: DaysKnown): Iterable<DateWhen> {
  const [first, last] = [Math.min(...wanted), Math.max(...wanted)];
  if (first === last && !others.includes(first)) yield { kind: 'date', is: 'on', to: isoFromSerial(first) };
  const [below, above] = [others.filter((day) => day < first), others.filter((day) => day > last)];
  if (below.length + above.length < others.length) return;
  const [floor, ceiling] = [
    below.length ? Math.max(...below) : first - 31,
    above.length ? Math.min(...above) : last + 31,
  ];
  if (below.length === 0) for (const day of sensibleDays(last + 1, ceiling, MAX_DAYS)) yield given('before', day);
  if (above.length === 0) for (const day of sensibleDays(floor, first - 1, MAX_DAYS)) yield given('after', day);
  for (const from of sensibleDays(floor + 1, first, MAX_ENDS))
    for (const to of sensibleDays(last + 1, ceiling, MAX_ENDS).map((day) => day - 1))
      yield { kind: 'date', is: 'between', to: [isoFromSerial(from), isoFromSerial(to)] };
}

const given = (is: 'before' | 'after', day: number): DateWhen => ({ kind: 'date', is, to: isoFromSerial(day) });

/** Days from one to another that a person would name: firsts of months, Mondays, the ends themselves. */
function sensibleDays(from: number, to: number, most: number): number[] {
  const found = new Set<number>();
  const { year, month } = partsOf(from);
  for (let step = 0; step < 36; step++) {
    const day = rolledSerial(year, month + step, 1);
    if (day > to) break;
    if (day >= from) found.add(day);
  }
  const monday = from + ((7 - weekdayOf(from)) % 7);
  for (let day = monday; day <= to && found.size < 3 * most; day += 7) found.add(day);
  for (const end of [from, to]) if (end >= from && end <= to) found.add(end);
  return [...found].sort((a, b) => dayLength(a) - dayLength(b) || a - b).slice(0, most);
}

/** Numbers of days that are weeks, or nearly months. */
const USUAL_COUNTS = [7, 14, 30, 60, 90];

/** The length of a test of the day. */
export const dateLength = (when: DateWhen): number =>
  typeof when.is === 'string' ? testLength(when.is) + sumOf(operandList(when.to), givenDayLength) : spanLength(when.is);

function givenDayLength(day: Operand): number {
  const serial = typeof day === 'string' ? readDate(day) : undefined;
  return serial === undefined ? textLength(JSON.stringify(day)) : dayLength(serial);
}

function spanLength(span: RelativeSpan): number {
  const count = 'last' in span ? span.last : 'next' in span ? span.next : 1;
  return 3 + (USUAL_COUNTS.includes(count) ? 0 : numberLength(count));
}
