import { describe, expect, test } from 'vitest';
import { sensibleNumbers } from './sensible-numbers';
import { numberLength } from './shortness';

// Which limit a person would name between two values is common practice: the one with the fewest digits.
describe('numbers that a person would name', () => {
  test.each([
    { low: 48, high: 73, first: 50, says: 'fifty, before sixty' },
    { low: 4.7, high: 5.3, first: 5, says: 'a whole number' },
    { low: 61, high: 68, first: 65, says: 'a five, where there is no ten' },
    { low: 0.0312, high: 0.0475, first: 0.04, says: 'shares as well' },
    { low: -12, high: -3, first: -10, says: 'below zero' },
    { low: -3, high: 8, first: 0, says: 'zero before all' },
    { low: 6.21, high: 6.24, first: 6.22, says: 'as many digits as it takes' },
    { low: 1_234_000, high: 1_290_000, first: 1_250_000, says: 'large ones' },
  ])('between $low and $high: $first, $says', ({ low, high, first }) => {
    expect(sensibleNumbers({ low, high, takesLow: false, takesHigh: false }, 6)[0]).toBe(first);
  });

  test('ends belong to the interval only where that is said', () => {
    const ends = { low: 50, high: 60 };
    expect(sensibleNumbers({ ...ends, takesLow: false, takesHigh: true }, 4)).not.toContain(50);
    expect(sensibleNumbers({ ...ends, takesLow: false, takesHigh: true }, 4)).toContain(60);
    expect(sensibleNumbers({ low: 7, high: 7, takesLow: true, takesHigh: true }, 4)).toEqual([7]);
    expect(sensibleNumbers({ low: 7, high: 7, takesLow: true, takesHigh: false }, 4)).toEqual([]);
    expect(sensibleNumbers({ low: 8, high: 7, takesLow: true, takesHigh: true }, 4)).toEqual([]);
  });

  test('each lies in the interval, the shortest first, and there are no more than asked for', () => {
    for (const [low, high] of [
      [0, 1e9],
      [1e-9, 3e-9],
      [999_999.1, 1_000_000.9],
      [-1e6, 1e-6],
    ] as const) {
      const found = sensibleNumbers({ low, high, takesLow: true, takesHigh: true }, 9);
      expect(found.length).toBeGreaterThan(0);
      expect(found.length).toBeLessThanOrEqual(9);
      expect(found.every((number) => number >= low && number <= high)).toBe(true);
      const lengths = found.map(numberLength);
      expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
    }
  });
});
