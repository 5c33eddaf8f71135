import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { serialFromParts } from '../../values/dates/date-serial';
import { formatValue } from '../../values/format-value';
import { BUILT_IN, readFormatCode, writeFormatCode } from './number-format';

const MOMENT = {
  kind: 'date',
  serial: serialFromParts({ year: 2026, month: 3, day: 8, seconds: 14 * 3600 + 5 * 60 + 9 })!,
} as const;
const shown = (code: string, number?: number) =>
  formatValue(number === undefined ? MOMENT : { kind: 'number', number }, readFormatCode(code).pattern ?? '(as it is)');

describe('the codes that go by a number, ISO/IEC 29500-1, 18.8.30', () => {
  // The shown texts are worked out by hand from the signs of 18.8.31.
  test.each([
    [1, 1234.56, '1235'],
    [2, 1234.567, '1234.57'],
    [3, 1234567.8, '1,234,568'],
    [4, 1234567.891, '1,234,567.89'],
    [9, 0.256, '26%'],
    [10, 0.25678, '25.68%'],
    [37, 1234.5, '1,235'],
    [39, 1234.5, '1,234.50'],
  ])('%i shows a number', (id, number, text) => {
    expect(shown(BUILT_IN[id]!, number)).toBe(text);
  });

  test.each([
    [15, '8-Mar-26'],
    [16, '8-Mar'],
    [17, 'Mar-26'],
    [18, '2:05 PM'],
    [19, '2:05:09 PM'],
    [20, '14:05'],
    [21, '14:05:09'],
    [45, '05:09'],
  ])('%i shows a moment', (id, text) => {
    expect(shown(BUILT_IN[id]!)).toBe(text);
  });

  test('text, and what there is no pattern for', () => {
    expect(readFormatCode(BUILT_IN[49]!)).toMatchObject({ pattern: null, isText: true, isLess: false });
    expect(readFormatCode(BUILT_IN[0]!)).toEqual({ pattern: null, isDate: false, isLess: false });
    // Powers and fractions stay numbers; a length of time beyond a day is one too.
    for (const id of [11, 12, 48, 46])
      expect(readFormatCode(BUILT_IN[id]!)).toMatchObject({ isDate: false, isLess: true });
  });
});

describe('other codes, 18.8.31', () => {
  test.each([
    ['0.0" mg/L"', 6.44, '6.4 mg/L'],
    ['"about "0', 6.6, 'about 7'],
    ['0\\ \\m', 3, '3 m'],
    ['[$€-407]#,##0.00', 1234.5, '€1,234.50'],
    ['0_);(0)', 5, '5'],
    ['[Red]0.0', 1.25, '1.3'],
    ['0.0#', 1.5, '1.5'],
  ])('%s', (code, number, text) => {
    expect(shown(code, number)).toBe(text);
  });

  test.each([
    // An m is a minute after an hour, and before a second; else a month.
    ['yyyy-mm-dd hh:mm', '2026-03-08 14:05'],
    ['dd/mm/yyyy', '08/03/2026'],
    ['dddd, d mmmm yyyy', 'Sunday, 8 March 2026'],
    ['ddd d mmm', 'Sun 8 Mar'],
    ['m"th month"', '3th month'],
    ['mm:ss', '05:09'],
    ['h:mm:ss AM/PM', '2:05:09 PM'],
    ['[$-409]d-mmm-yy;@', '8-Mar-26'],
  ])('%s', (code, text) => {
    expect(shown(code)).toBe(text);
  });

  test('parts of a pattern that are lost are reported: colours, conditions, other sections, but not a language or literal text', () => {
    for (const code of ['[Red]0.0', '[>100]0', '0;-0', '# ?/?', 'mm:ss.0'])
      expect(readFormatCode(code).isLess, code).toBe(true);
    for (const code of ['[$-409]d-mmm-yy;@', '[$€-407]0.00', '0.0', 'yyyy-mm-dd'])
      expect(readFormatCode(code).isLess, code).toBe(false);
  });

  test('a letter in quotes makes no date of a number', () => {
    expect(readFormatCode('0" days"')).toMatchObject({ isDate: false, pattern: '0 days' });
  });
});

const fraction = fc
  .tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 3 }))
  .map(([zeros, signs]) => (zeros + signs ? `.${'0'.repeat(zeros)}${'#'.repeat(signs)}` : ''));
const numberPattern = fc
  .tuple(
    fc.constantFrom('', '€', 'about '),
    fc.constantFrom('0', '00', '#,##0'),
    fraction,
    fc.constantFrom('', '%', ' mg/L', ' °C'),
  )
  .map((parts) => parts.join(''));
const datePattern = fc.constantFrom(
  'yyyy-MM-dd',
  'd MMM yyyy',
  'EEEE d MMMM',
  "d'th' MMM yy",
  'dd.MM.yyyy HH:mm',
  'h:mm a',
  'HH:mm:ss',
  'MMM yyyy',
);

test('what is written is read as the same pattern', () => {
  fc.assert(
    fc.property(fc.oneof(numberPattern, datePattern), (pattern) => {
      expect(readFormatCode(writeFormatCode(pattern))).toMatchObject({ pattern, isLess: false });
    }),
  );
});
