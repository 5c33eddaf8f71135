import { describe, expect, test } from 'vitest';
import { formatNumber, parseNumberFormat, roundAsShown } from './number-format';

describe('patterns', () => {
  // UTS #35, part 3 (Numbers), number format patterns: #,##0.### and the like.
  test.each([
    [1234.567, '#,##0.###', '1,234.567'],
    [1234.5, '#,##0.00', '1,234.50'],
    [0.5, '0.0%', '50.0%'],
    [-0.126, '0%', '-13%'],
    [1234.5, '¤#,##0', '¤1,235'],
    [-3, '$0.00', '-$3.00'],
    [7, '000', '007'],
    [0.25, '#.##', '0.25'],
    [1e21, '0', '1000000000000000000000'],
  ])('%d as %s', (number, pattern, shown) => expect(formatNumber(number, pattern)).toBe(shown));

  test('no pattern shows the shortest decimal', () => expect(formatNumber(0.1, null)).toBe('0.1'));
  test.each(['abc', '', '0#', '0.#0', '0.0.0'])('%j is not a pattern', (pattern) =>
    expect(parseNumberFormat(pattern)).toBeUndefined(),
  );
});

test('a value is rounded as it is shown, half away from zero', () => {
  expect(roundAsShown(4.95, '0.0')).toBe(5);
  expect(roundAsShown(-2.5, '0')).toBe(-3);
  expect(roundAsShown(0.04995, '0.0%')).toBe(0.05);
  expect(roundAsShown(0.0494, '0%')).toBe(0.05);
  expect(roundAsShown(1.23456, null)).toBe(1.23456);
});
