import fc from 'fast-check';
import { expect, test } from 'vitest';
import { hasWithin, setOutside, setWithin } from './number-bits';

const number = fc.oneof(fc.integer({ min: -4, max: 4 }), fc.double(), fc.constant(NaN));

// What a comparison one by one gives, of IEEE 754: NaN is neither within nor outside.
test('limits mean for whole words what they mean for each number', () => {
  fc.assert(
    fc.property(fc.array(number, { maxLength: 140 }), number, number, (list, low, high) => {
      const numbers = Float64Array.from(list);
      const words = new Uint32Array((list.length + 31) >>> 5).fill(0xffffffff);
      const bits = () => list.map((_, slot) => ((words[slot >>> 5]! >>> (slot & 31)) & 1) === 1);
      const beyond = () => (list.length % 32 === 0 ? 0 : words.at(-1)! >>> (list.length % 32));
      const within = list.map((each) => each >= low && each <= high);

      setWithin(numbers, list.length, { low, high, words });
      expect([bits(), beyond()]).toEqual([within, 0]);
      setOutside(numbers, list.length, { low, high, words });
      expect([bits(), beyond()]).toEqual([list.map((each) => each < low || each > high), 0]);
      expect(hasWithin(numbers, list.length, { low, high })).toBe(within.includes(true));
    }),
  );
});
