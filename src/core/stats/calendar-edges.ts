import { lastItem } from '../values/item-at';
import { partsOf, rolledSerial, weekdayOf } from '../values/dates/calendar';

/** Spans (days) up to which days, weeks and months have bins of their own: some sixty bins at most. */
const MAX_DAYS = { days: 62, weeks: 430, months: 1900 } as const;

/**
 * Edges of the days, ISO weeks, months or years in which dates lie, from the first to past the last: the longer the
 * span, the longer the parts.
 */
export function calendarEdges(first: number, last: number): number[] {
  const span = last - first;
  const edges = [startOf(first, span)];
  while (lastItem(edges) <= last) edges.push(nextAfter(lastItem(edges), span));
  return edges;
}

function startOf(serial: number, span: number): number {
  const day = Math.floor(serial);
  if (span <= MAX_DAYS.days) return day;
  if (span <= MAX_DAYS.weeks) return day - weekdayOf(day);
  const { year, month } = partsOf(day);
  return rolledSerial(year, span <= MAX_DAYS.months ? month : 1, 1);
}

function nextAfter(edge: number, span: number): number {
  if (span <= MAX_DAYS.days) return edge + 1;
  if (span <= MAX_DAYS.weeks) return edge + 7;
  const { year, month } = partsOf(edge);
  return span <= MAX_DAYS.months ? rolledSerial(year, month + 1, 1) : rolledSerial(year + 1, 1, 1);
}
