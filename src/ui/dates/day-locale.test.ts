import { expect, test } from 'vitest';
import { dayLocale } from './day-locale';

// Orders and first days of the week: Unicode CLDR, through ECMA-402 of the engine that runs this.
test.each([
  ['en-US', 'MM/DD/YYYY'],
  ['en-GB', 'DD/MM/YYYY'],
  ['de-DE', 'DD.MM.YYYY'],
  ['sv-SE', 'YYYY-MM-DD'],
])('days in %s are written %s', (tag, pattern) => {
  expect(dayLocale(tag).pattern).toBe(pattern);
});

test('weeks begin on Sunday or Monday', () => {
  expect(['en-US', 'en-GB', 'de-DE'].map((tag) => dayLocale(tag).firstDayOfWeek)).toEqual([0, 1, 1]);
});
