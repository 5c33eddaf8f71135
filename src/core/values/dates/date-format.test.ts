import { expect, test } from 'vitest';
import { serialFromParts } from './date-serial';
import { formatValue } from '../format-value';
import { serialInZone } from './serial-in-zone';

const serial = serialFromParts({ year: 2026, month: 3, day: 8, seconds: 14 * 3600 + 5 * 60 + 9 })!;

// Fields of UTS #35, part 4, "Date Field Symbol Table", with English names.
test.each([
  ['yyyy-MM-dd', '2026-03-08'],
  ['d MMM y', '8 Mar 2026'],
  ['EEEE, d MMMM yyyy', 'Sunday, 8 March 2026'],
  ['EEE dd.MM.yy', 'Sun 08.03.26'],
  ['HH:mm:ss', '14:05:09'],
  ["h:mm a 'o''clock'", "2:05 PM o'clock"],
  ['QQQ y', 'Q1 2026'],
  ['D', '67'],
])('%s shows %s', (pattern, shown) => expect(formatValue({ kind: 'date', serial }, pattern)).toBe(shown));

test('letters that are no date fields are no pattern, and a number pattern shows the serial number', () => {
  expect(formatValue({ kind: 'date', serial }, 'yyyy-XX')).toBeUndefined();
  expect(formatValue({ kind: 'date', serial: 46_089 }, '#,##0')).toBe('46,089');
});

test('a moment is the day that the clocks of its zone show', () => {
  const moment = Date.parse('2026-03-08T23:30:00Z');
  expect(
    [undefined, 'Asia/Tokyo', 'America/New_York'].map((zone) =>
      formatValue({ kind: 'date', serial: serialInZone(moment, zone) }, 'yyyy-MM-dd HH:mm'),
    ),
  ).toEqual([
    '2026-03-08 23:30',
    '2026-03-09 08:30',
    // Summer time began that morning.
    '2026-03-08 19:30',
  ]);
  expect(() => serialInZone(moment, 'Wrenfold')).toThrow(RangeError);
});
