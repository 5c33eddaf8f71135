import { quantile } from 'd3-array';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { RankedNumbers } from './ranked-numbers';

const value = fc.oneof(fc.integer({ min: -5, max: 5 }), fc.double({ noNaN: true, noDefaultInfinity: true }));

test('numbers that come and go are in the order in which sorting puts them', () => {
  fc.assert(
    fc.property(
      fc.array(value, { maxLength: 3000 }),
      fc.array(fc.tuple(fc.boolean(), value), { maxLength: 200 }),
      (start, edits) => {
        const blocks = new RankedNumbers(Float64Array.from(start));
        const plain = [...start];
        const ends = () => [blocks.least + 0, blocks.greatest + 0];
        for (const [adds, number] of edits) {
          expect(ends()).toEqual(plain.length ? [Math.min(...plain) + 0, Math.max(...plain) + 0] : [NaN, NaN]);
          const at = plain.findIndex((other) => other === number);
          if (adds) plain.push(number);
          else if (at >= 0) plain.splice(at, 1);
          else continue;
          if (adds) blocks.add(number);
          else blocks.remove(number);
        }
        plain.sort((a, b) => a - b);
        expect(blocks.count).toBe(plain.length);
        expect(Array.from(plain, (_, at) => blocks.at(at) + 0)).toEqual(plain.map((number) => number + 0));
        expect(ends()).toEqual(plain.length ? [plain[0]! + 0, plain.at(-1)! + 0] : [NaN, NaN]);
        for (const p of [0, 0.25, 0.5, 0.9, 1])
          if (plain.length) expect(blocks.quantile(p)).toBeCloseTo(quantile(plain, p)!, 8);
      },
    ),
    { numRuns: 200 },
  );
});

test('a number that is not there cannot be taken out', () => {
  expect(() => new RankedNumbers(Float64Array.of(1, 3)).remove(2)).toThrow(RangeError);
});
