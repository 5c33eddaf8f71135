import fc from 'fast-check';
import { sampleStandardDeviation, standardDeviation } from 'simple-statistics';
import { describe, expect, test } from 'vitest';
import { BitSet } from '../values/bit-set';
import { ExactSum } from './exact-sum';
import { Moments } from './moments';

const of = (values: readonly number[]) => {
  const moments = new Moments();
  for (const value of values) moments.add(value);
  return moments;
};

const alternating = (first: number, pair: readonly [number, number]) => [
  first,
  ...Array.from({ length: 1000 }, (_, at) => pair[at % 2]!),
];

describe('certified values', () => {
  // NIST Statistical Reference Datasets, univariate summary statistics: NumAcc1 to NumAcc4, whose data follow from
  // their description.
  test.each([
    { name: 'NumAcc1', values: [10000001, 10000003, 10000002], mean: 10000002, deviation: 1, digits: 15 },
    { name: 'NumAcc2', values: alternating(1.2, [1.1, 1.3]), mean: 1.2, deviation: 0.1, digits: 14 },
    {
      name: 'NumAcc3',
      values: alternating(1000000.2, [1000000.1, 1000000.3]),
      mean: 1000000.2,
      deviation: 0.1,
      digits: 9,
    },
    {
      name: 'NumAcc4',
      values: alternating(10000000.2, [10000000.1, 10000000.3]),
      mean: 10000000.2,
      deviation: 0.1,
      digits: 8,
    },
  ])('$name', ({ values, mean, deviation, digits }) => {
    const moments = of(values);
    expect(Math.abs(moments.mean - mean) / mean).toBeLessThan(2 ** -52);
    // The last digits of NumAcc3 and NumAcc4 are lost when 0.1 beside a million becomes a double, before anything is
    // computed.
    expect(Math.abs(moments.deviation('sample') - deviation) / deviation).toBeLessThan(10 ** -digits);
  });
});

test('deviations are those of simple-statistics', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 2, maxLength: 60 }),
      (values) => {
        const moments = of(values);
        const size = Math.max(1e-140, ...values.map(Math.abs));
        expect(Math.abs(moments.deviation('sample') - sampleStandardDeviation(values)) / size).toBeLessThan(1e-12);
        expect(Math.abs(moments.deviation('population') - standardDeviation(values)) / size).toBeLessThan(1e-12);
      },
    ),
  );
});

test('what remains after values came and went is what was never touched', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -1e9, max: 1e9, noNaN: true }), { minLength: 2 }),
      fc.array(fc.double({ min: -1e9, max: 1e9, noNaN: true })),
      (stay, go) => {
        const moments = of([...go, ...stay]);
        for (const value of go) moments.remove(value);
        const fresh = of(stay);
        expect(moments.count).toBe(fresh.count);
        expect(moments.mean).toBe(fresh.mean);
        expect(moments.deviation('sample')).toBe(fresh.deviation('sample'));
      },
    ),
  );
});

test('there is no mean of nothing, and no sample deviation of one', () => {
  expect(new Moments().mean).toBeNaN();
  expect(of([5]).deviation('sample')).toBeNaN();
  expect(of([5]).deviation('population')).toBe(0);
});

test('the quick loop gives what adding one by one gives', () => {
  fc.assert(
    fc.property(
      fc.array(fc.option(fc.double({ min: -1e9, max: 1e9, noNaN: true }), { nil: NaN }), { maxLength: 80 }),
      fc.infiniteStream(fc.boolean()),
      (values, picks) => {
        const members = new BitSet();
        members.fit(values.length);
        const picked = values.filter((_, at) => {
          const isIn = picks.next().value === true;
          members.set(at, isIn);
          return isIn;
        });
        const plain = of(picked.filter((value) => !Number.isNaN(value)));
        for (const tracks of ['deviation', 'mean'] as const) {
          const quick = new Moments(tracks);
          quick.addAll(Float64Array.from(values), members);
          expect([quick.count, quick.mean]).toEqual([plain.count, plain.mean]);
          expect(quick.deviation('population')).toBe(tracks === 'deviation' ? plain.deviation('population') : NaN);
        }
      },
    ),
  );
});

test('numbers too large to square or to add leave no trace once they are gone', () => {
  const moments = of([1, 2, 1e200, 1.7e308, -1.7e308]);
  expect([moments.mean, moments.deviation('sample')]).toEqual([NaN, NaN]);
  for (const value of [1e200, 1.7e308, -1.7e308]) moments.remove(value);
  expect([moments.mean, moments.deviation('population')]).toEqual([1.5, 0.5]);
});

test('a sum is exact: what cancels cancels, whatever the order', () => {
  // Ten tenths are the example of Python's documentation of math.fsum (from memory); the others lose everything when
  // added naively.
  const sum = (values: readonly number[]) => {
    const exact = new ExactSum();
    for (const value of values) exact.add(value);
    return exact.rounded();
  };
  expect(sum(Array<number>(10).fill(0.1))).toBe(1);
  expect(sum([1e100, 1, -1e100])).toBe(1);
  expect(sum([1, 1e16, 1, -1e16])).toBe(2);
  fc.assert(
    fc.property(fc.array(fc.double({ min: -1e12, max: 1e12, noNaN: true })), (values) => {
      expect(sum(values) + 0).toBe(sum(values.toReversed()) + 0);
    }),
  );
});
