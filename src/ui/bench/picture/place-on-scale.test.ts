import { extent, quantile } from 'd3-array';
import { describe, expect, test } from 'vitest';
import { describeValues } from '../../../core/stats/profile-values';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import { dateTicks } from './date-ticks';
import { placeOnScale } from './place-on-scale';

const numbers = [2, 3.5, 8, 8, 11, 40];
const profile = describeValues(Float64Array.from(numbers), { blanks: 0, others: 0, mean: NaN, commonText: null });

// Quantiles of d3-array: Hyndman and Fan, type 7.
describe('places of positions', () => {
  test.each([
    [7, 7],
    ['least', extent(numbers)[0]],
    ['greatest', extent(numbers)[1]],
    [{ percentile: 25 }, quantile(numbers, 0.25)],
    [{ percentile: 90 }, quantile(numbers, 0.9)],
    [{ percent: 50 }, (2 + 40) / 2],
    [{ cell: 'F4' }, undefined],
    [{ formula: '=1' }, undefined],
  ] as const)('%j', (position, expected) => expect(placeOnScale(position, profile)).toBe(expected));
});

describe('ticks over dates', () => {
  const say = (date: Date, parts: Intl.DateTimeFormatOptions) => date.toLocaleDateString('en-GB', parts);
  const days = (from: string, to: string) =>
    [from, to].map((iso) => Date.parse(iso) / 86_400_000 + 25_569) as [number, number];

  test('over most of a year they are months, called by their names', () => {
    const ticks = dateTicks(days('2026-01-20', '2026-11-30'), 5, say);
    for (const { value } of ticks) expect(isoFromSerial(value)).toMatch(/^2026-\d\d-01$/);
    expect(ticks.map(({ says }) => says)).toEqual(['Apr', 'Jul', 'Oct']);
  });

  test('over a few weeks they are days, over years they say which year', () => {
    for (const { value, says } of dateTicks(days('2026-03-01', '2026-03-20'), 4, say))
      expect(`${Number(isoFromSerial(value).slice(8))} Mar`).toBe(says);
    for (const { says } of dateTicks(days('2019-03-01', '2026-03-20'), 4, say)) expect(says).toMatch(/^Jan 20\d\d$/);
  });
});
