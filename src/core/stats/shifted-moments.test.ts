import fc from 'fast-check';
import { expect, test } from 'vitest';
import { BitSet } from '../values/bit-set';
import { Moments } from './moments';
import { ShiftedMoments } from './shifted-moments';

const number = fc.oneof(
  { weight: 6, arbitrary: fc.integer({ min: -1000, max: 1000 }).map((cents) => cents / 100) },
  { weight: 3, arbitrary: fc.double({ min: 1e12, max: 1.1e12, noNaN: true }) },
  { weight: 2, arbitrary: fc.double({ noNaN: true, noDefaultInfinity: true }) },
  { weight: 2, arbitrary: fc.constantFrom(NaN, 0, -0, 5, 5, 1e150, 2e150, 1e301, 1e-162, 3e-170) },
);

/** Slots of which some count. */
function members(list: readonly number[], left: readonly boolean[]) {
  const slots = new BitSet();
  slots.fit(list.length);
  list.forEach((_, slot) => slots.set(slot, left[slot] !== true));
  return { numbers: Float64Array.from(list), slots };
}

// Against sums without any rounding (Moments, which has tests of its own): a bound that is given is never wrong.
test('what exact arithmetic gives lies within the bounds, after edits too', () => {
  let sure = 0;
  fc.assert(
    fc.property(
      fc.record({
        list: fc.array(fc.oneof(number, fc.integer({ min: 0, max: 9 })), { maxLength: 150 }),
        left: fc.array(fc.boolean(), { maxLength: 40 }),
        edits: fc.array(fc.tuple(fc.nat(), number), { maxLength: 6 }),
        deviations: fc.constantFrom(0, 1, -1.5, 3),
        spread: fc.constantFrom('sample' as const, 'population' as const),
      }),
      ({ list, left, edits, deviations, spread }) => {
        const counted = members(list, left);
        const shifted = new ShiftedMoments([counted]);
        for (const [at, now] of edits) {
          const slot = at % Math.max(1, list.length);
          if (!counted.slots.has(slot)) continue;
          shifted.edit(counted.numbers[slot]!, now);
          counted.numbers[slot] = now;
        }
        const exact = new Moments();
        exact.addAll(counted.numbers, counted.slots);
        const bounds = shifted.bounds(deviations, spread);
        if (!bounds) return;
        sure++;
        const away = deviations === 0 ? 0 : deviations * exact.deviation(spread);
        expect(exact.mean + away).toBeGreaterThanOrEqual(bounds.low);
        expect(exact.mean + away).toBeLessThanOrEqual(bounds.high);
      },
    ),
    {
      numRuns: 2000,
      // Squares below the least double.
      examples: [[{ list: [1.57e-162, 0, 0], left: [false, true], edits: [[0, 0]], deviations: 3, spread: 'sample' }]],
    },
  );
  expect(sure).toBeGreaterThan(200);
});

test('the bounds are narrow: far less than what numbers of a sheet differ by', () => {
  const list = Array.from({ length: 100_000 }, (_, at) => 46_000 + ((at * 7919) % 1000) / 100);
  const bounds = new ShiftedMoments([members(list, [])]).bounds(1.5, 'sample');
  expect((bounds?.high ?? NaN) - (bounds?.low ?? NaN)).toBeLessThan(1e-7);
});
