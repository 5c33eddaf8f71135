import fc from 'fast-check';
import { sampleStandardDeviation, standardDeviation } from 'simple-statistics';
import { describe, expect, test } from 'vitest';
import { BitSet } from '../sheet/bit-set';
import { Moments } from './moments';

const of = (values: readonly number[]) => {
  const moments = new Moments();
  for (const value of values) moments.add(value);
  return moments;
};

const alternating = (first: number, pair: readonly [number, number]) => [first, ...Array.from({ length: 1000 }, (_, at) => pair[at % 2]!)];

describe('certified values', () => {
  // NIST Statistical Reference Datasets, univariate summary statistics: NumAcc1 to NumAcc4, whose data follow from their description.
  test.each([
    { name: 'NumAcc1', values: [10000001, 10000003, 10000002], mean: 10000002, deviation: 1, digits: 15 },
    { name: 'NumAcc2', values: alternating(1.2, [1.1, 1.3]), mean: 1.2, deviation: 0.1, digits: 14 },
    { name: 'NumAcc3', values: alternating(1000000.2, [1000000.1, 1000000.3]), mean: 1000000.2, deviation: 0.1, digits: 9 },
    { name: 'NumAcc4', values: alternating(10000000.2, [10000000.1, 10000000.3]), mean: 10000000.2, deviation: 0.1, digits: 8 },
  ])('$name', ({ values, mean, deviation, digits }) => {
    const moments = of(values);
    expect(Math.abs(moments.mean - mean) / mean).toBeLessThan(2 ** -52);
    // The last digits of NumAcc3 and NumAcc4 are lost when 0.1 beside a million becomes a double, before anything is computed.
    expect(Math.abs(moments.deviation('sample') - deviation) / deviation).toBeLessThan(10 ** -digits);
  });
});

test('deviations are those of simple-statistics', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 2, maxLength: 60 }), (values) => {
      const moments = of(values);
      const size = Math.max(1e-300, ...values.map(Math.abs));
      expect(Math.abs(moments.deviation('sample') - sampleStandardDeviation(values)) / size).toBeLessThan(1e-12);
      expect(Math.abs(moments.deviation('population') - standardDeviation(values)) / size).toBeLessThan(1e-12);
    }),
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
        expect(moments.mean).toBeCloseTo(fresh.mean, 8);
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
        for (const squares of ['squares', 'no-squares'] as const) {
          const quick = new Moments();
          quick.addAll(Float64Array.from(values), members, squares);
          expect([quick.count, quick.sum]).toEqual([plain.count, plain.sum]);
          expect(quick.deviation('population')).toBe(squares === 'squares' ? plain.deviation('population') : NaN);
        }
      },
    ),
  );
});
