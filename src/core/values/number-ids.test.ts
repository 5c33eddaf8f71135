import fc from 'fast-check';
import { expect, test } from 'vitest';
import { NumberIds } from './number-ids';

test('equal numbers have the same id, as in a map', () => {
  const number = fc.oneof(fc.integer({ min: -50, max: 400 }), fc.double(), fc.constantFrom(-0, 0, NaN, 2 ** 53));
  fc.assert(
    fc.property(fc.array(number, { maxLength: 900 }), (numbers) => {
      const ids = new NumberIds();
      const map = new Map<number, number>();
      numbers.forEach((each, at) => {
        if (!map.has(each)) map.set(each, at + 1);
        expect(ids.findOrSet(each, at + 1)).toBe(map.get(each));
      });
    }),
    { numRuns: 300 },
  );
});
