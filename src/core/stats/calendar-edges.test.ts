import { utcDay, utcMonday, utcMonth, utcYear, type CountableTimeInterval } from 'd3-time';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarEdges } from './calendar-edges';

const DAY_MS = 86_400_000;
/** Serial date of the first day of Unix time. */
const EPOCH = 25_569;
const dateOf = (serial: number): Date => new Date((serial - EPOCH) * DAY_MS);

test('the edges are those of d3-time, of the finest unit that gives few enough bins', () => {
  const span = fc.oneof(
    fc.integer({ min: 0, max: 70 }),
    fc.integer({ min: 0, max: 500 }),
    fc.integer({ min: 0, max: 40_000 }),
  );
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60_000 }), span, (first, days) => {
      const unit: CountableTimeInterval =
        days <= 62 ? utcDay : days <= 430 ? utcMonday : days <= 1900 ? utcMonth : utcYear;
      const begin = unit.floor(dateOf(first));
      const end = unit.offset(unit.floor(dateOf(first + days)), 1);
      const expected = [...unit.range(begin, end), end].map((date) => date.getTime() / DAY_MS + EPOCH);
      expect(calendarEdges(first, first + days)).toEqual(expected);
    }),
  );
});
