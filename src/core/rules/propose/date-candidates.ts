import { rolledSerial, partsOf, weekdayOf } from '../../values/dates/calendar';
import { isoFromSerial } from '../../values/dates/date-serial';
import { TAG } from '../../values/cell-value';
import type { Evidence, ExampleCell } from './evidence';
import { dayLength } from './shortness';

/** The first and last day of a test, both included. */
export type DaysOf<S> = (span: S) => readonly [from: number, to: number];

export interface DayCandidate {
  readonly kind: 'date';
  readonly is: 'before' | 'after' | 'on' | 'between';
  readonly to: string | readonly [string, string];
}

/** Days that are tried as a limit, and at each end where there are two. */
const MAX_DAYS = 6;
const MAX_ENDS = 4;

interface DaysKnown {
  readonly wanted: readonly number[];
  readonly others: readonly number[];
}

/** The days of the examples: undefined where one that is wanted holds no date. */
export function daysKnown({ sheet, yes, no }: Evidence): DaysKnown | undefined {
  const dayOf = ({ column, slot }: ExampleCell): number => {
    const store = sheet.column(column);
    return store.tags[slot] === TAG.date ? Math.floor(store.numberAt(slot)) : NaN;
  };
  const wanted = yes.map(dayOf);
  if (wanted.length === 0 || wanted.some(Number.isNaN)) return undefined;
  return { wanted, others: no.map(dayOf).filter((day) => !Number.isNaN(day)) };
}

/** Of some tests by today, those that hold for all days that are wanted and for none that is not. */
export function fittingSpans<S>(spans: readonly S[], daysOf: DaysOf<S>, { wanted, others }: DaysKnown): S[] {
  return spans.filter((span) => {
    const [from, to] = daysOf(span);
    const holds = (day: number): boolean => day >= from && day <= to;
    return wanted.every(holds) && !others.some(holds);
  });
}

/** Tests by days given: before, after, on one, or between two. */
export function* dayCandidates({ wanted, others }: DaysKnown): Iterable<DayCandidate> {
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

const given = (is: 'before' | 'after', day: number): DayCandidate => ({ kind: 'date', is, to: isoFromSerial(day) });

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
