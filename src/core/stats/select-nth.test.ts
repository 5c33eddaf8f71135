import fc from 'fast-check';
import { expect, test } from 'vitest';
import { selectNth } from './select-nth';

const number = fc.oneof(
  fc.integer({ min: 0, max: 5 }),
  fc.double({ noNaN: true }).map((each) => each + 0),
);

// What sorting (ECMA-262) puts there; long lists too, where a sample is taken first.
test('the n-th is what stands there once all are sorted, and the others are on their side of it', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.array(number, { minLength: 1 }), fc.array(number, { minLength: 1500, maxLength: 2000 })),
      fc.nat(),
      (list, at) => {
        const nth = at % list.length;
        const numbers = Float64Array.from(list);
        const found = selectNth(numbers, nth);
        expect(found).toBe(Float64Array.from(list).sort()[nth]);
        expect(numbers.subarray(0, nth).every((each) => each <= found)).toBe(true);
        expect(numbers.subarray(nth).every((each) => each >= found)).toBe(true);
        expect(numbers.sort()).toEqual(Float64Array.from(list).sort());
      },
    ),
  );
});
