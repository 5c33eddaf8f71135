import { describe, expect, test } from 'vitest';
import { isoFromSerial } from './dates/date-serial';
import { readInput } from './read-input';

const valueOf = (input: string, options = {}) => readInput(input, options).value;

describe('numbers', () => {
  // The table of the rules format (docs/rules.md, "Values") and its rulings.
  test.each([
    ['1234.5', 1234.5],
    ['1,234.5', 1234.5],
    ['12,345,678', 12345678],
    ['-3', -3],
    ['\u22123', -3],
    ['+3', 3],
    ['1.2e3', 1200],
    ['1E3', 1000],
    ['.5', 0.5],
    ['-.5', -0.5],
    ['5.', 5],
    ['007', 7],
    ['  42\u00a0', 42],
    ['5%', 0.05],
    ['12.5 %', 0.125],
    // Nearest doubles, not 12.3 / 100.
    ['12.3%', 0.123],
    ['$3', 3],
    ['+$5', 5],
    ['-$3', -3],
    ['$-3', -3],
    ['€ 1,200.50', 1200.5],
    ['3 €', 3],
  ])('%j is a number', (input, number) => expect(valueOf(input)).toEqual({ kind: 'number', number }));

  test.each(['1,23', '1,2345', '(3)', '$5%', 'USD 5', '1.2.3', '--3', '$-+3', '1e999', '3kg', '.', '%', '$'])(
    '%j is text',
    (input) => expect(valueOf(input)).toEqual({ kind: 'text', text: input }),
  );

  test.each([
    ['5%', '0%'],
    ['4.995%', '0.000%'],
    ['$3', '$0'],
    ['1,234.50', '#,##0.00'],
    ['3 €', '0\u00a0€'],
    ['12', null],
    ['1.50', '0.00'],
  ])('%j asks for the format %j', (input, format) => expect(readInput(input).format).toBe(format));
});

describe('dates', () => {
  test.each([
    ['2026-03-08', '2026-03-08'],
    ['2026-3-8', '2026-03-08'],
    ['2026-03-08 14:30', '2026-03-08T14:30:00'],
    ['2026-03-08T14:30:05', '2026-03-08T14:30:05'],
    ['8 Mar 2026', '2026-03-08'],
    ['8 March 2026', '2026-03-08'],
    ['29 feb 2024', '2024-02-29'],
  ])('%j is %s', (input, iso) => {
    const value = valueOf(input);
    expect(value.kind === 'date' && isoFromSerial(value.serial)).toBe(iso);
  });

  test('day and month as numbers need an order', () => {
    expect(valueOf('8/3/2026').kind).toBe('text');
    const [dmy, mdy] = (['dmy', 'mdy'] as const).map((dates) => valueOf('8/3/2026', { dates }));
    expect(dmy!.kind === 'date' && isoFromSerial(dmy!.serial)).toBe('2026-03-08');
    expect(mdy!.kind === 'date' && isoFromSerial(mdy!.serial)).toBe('2026-08-03');
  });

  test.each(['2026-02-30', '29 Feb 2026', '8 Foo 2026', '2026-03-08 24:00', '2026-13-01', '8/3/26'])(
    '%j is text',
    (input) => expect(valueOf(input, { dates: 'dmy' }).kind).toBe('text'),
  );

  test('days count from 1899-12-30: ISO/IEC 26300 dates 1900-01-01 as 2', () => {
    expect(valueOf('1900-01-01')).toEqual({ kind: 'date', serial: 2 });
    expect(valueOf('1899-12-30')).toEqual({ kind: 'date', serial: 0 });
  });
});

describe('the rest', () => {
  test.each(['', ' ', '\t\u3000\u2003\u0085', "'", "' "])('%j is blank', (input) =>
    expect(valueOf(input)).toEqual({ kind: 'blank' }),
  );
  test.each([
    ['TRUE', true],
    ['false', false],
  ])('%j is a logical', (input, logical) => expect(valueOf(input)).toEqual({ kind: 'logical', logical }));
  test.each(['#N/A', ' #div/0! '])('%j is an error', (input) =>
    expect(valueOf(input)).toEqual({ kind: 'error', error: input.trim().toUpperCase() }),
  );
  test('an apostrophe makes text, exactly', () => expect(valueOf("'0042")).toEqual({ kind: 'text', text: '0042' }));
  test('a text field takes everything as typed', () =>
    expect(valueOf('007', { asText: true })).toEqual({ kind: 'text', text: '007' }));
  test('a formula has no value before it is calculated', () =>
    expect(readInput(' =1+1')).toEqual({ value: { kind: 'blank' }, format: null, isFormula: true }));
});
