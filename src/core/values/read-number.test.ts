import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readNumber } from './read-number';

// What begins with a plus is read by the expression for all ways of typing, and a plus changes nothing about a number
// (common practice).
test('digits are read as by the expression for all ways of typing', () => {
  const digits = fc.stringMatching(/^\d{0,25}\.?\d{0,25}$/);
  fc.assert(
    fc.property(digits, (text) => {
      expect(readNumber(text)).toEqual(readNumber(`+${text}`));
      const below = readNumber(`+${text}`);
      expect(readNumber(`-${text}`)).toEqual(below && { ...below, number: -below.number });
    }),
    { numRuns: 2000 },
  );
});

test.each(['.', '-', '-.', '', '1.2.3', '--1', 'e5', 'Alder 5'])('%j is no number', (text) => {
  expect(readNumber(text)).toBeUndefined();
});
