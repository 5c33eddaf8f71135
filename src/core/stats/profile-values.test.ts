import { quantileSorted } from 'd3-array';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { binsAt, describeValues, nearestTo, withOutcomes } from './profile-values';
import { quantileOfSorted } from './quantile';

const numbers = fc
  .array(fc.integer({ min: -50, max: 50 }), { maxLength: 40 })
  .map((values) => Float64Array.from(values).sort());

test('quantiles are those of d3-array (Hyndman and Fan, type 7)', () => {
  fc.assert(
    fc.property(numbers, fc.double({ min: 0, max: 1, noNaN: true }), (sorted, p) => {
      if (sorted.length === 0) expect(quantileOfSorted(sorted, p)).toBeNaN();
      else expect(quantileOfSorted(sorted, p)).toBeCloseTo(quantileSorted(Array.from(sorted), p)!, 10);
    }),
  );
});

test('the nearest values are on either side, and every value is in one bin with its outcome', () => {
  fc.assert(
    fc.property(numbers, fc.integer({ min: -60, max: 60 }), (sorted, threshold) => {
      const near = nearestTo(sorted, threshold);
      const values = [...sorted];
      expect(near).toEqual({
        below: values.filter((value) => value < threshold).at(-1) ?? NaN,
        at: values.filter((value) => value === threshold).length,
        above: values.find((value) => value > threshold) ?? NaN,
      });
      const outcomes = Int32Array.from(values, (value) => (value < threshold ? 0 : -1));
      const described = describeValues(sorted, { blanks: 0, others: 0, mean: NaN, commonText: null });
      const bins = withOutcomes(described.bins, { binOf: binsAt(described.bins, sorted), outcomes });
      const sum = (counts: readonly number[]) => counts.reduce((total, count) => total + count, 0);
      expect(sum(bins.map(({ count }) => count))).toBe(values.length);
      expect(sum(bins.flatMap((bin) => bin.outcomes))).toBe(values.filter((value) => value < threshold).length);
      for (const bin of bins) expect(sum(bin.outcomes)).toBeLessThanOrEqual(bin.count);
    }),
  );
});
