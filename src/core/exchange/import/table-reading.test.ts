import { describe, expect, test } from 'vitest';
import { FieldFacts } from './field-facts';
import { describeField, findHeader, guessReading, inputOf, type TableReading } from './table-reading';

const factsOf = (...cells: readonly string[]): FieldFacts => {
  const facts = new FieldFacts();
  cells.forEach((cell) => facts.add(cell));
  return facts;
};

describe('what a field is', () => {
  test.each([
    ['numbers', 'values', ['1', '2.5', '-3', '1e3', '12 %']],
    ['dates', 'values', ['2026-03-08', '8 March 2026', '8/3/2026']],
    ['true or false', 'values', ['TRUE', 'false']],
    ['formulas', 'values', ['=A1', '=B2*2']],
    ['text', 'values', ['Alder Weir', 'n/a']],
    ['blank', 'values', ['', ' ']],
    // Zeros in front and more than 15 digits would be lost, also among words; numbers that are measured stay numbers.
    ['codes', 'text', ['007', '12', '345']],
    ['codes', 'text', ['12345678901234567']],
    ['codes', 'text', ['007', 'A12']],
    ['numbers', 'values', ['01', '2.5', '3', 'n/a']],
    ['numbers', 'values', ['0', '0.5']],
  ])('%s, read as %s: %j', (kind, as, cells) => {
    const facts = factsOf(...cells);
    expect(describeField(facts, '.').kind).toBe(kind);
    expect(guessReading([facts], null).reading.as).toEqual([as]);
  });

  test('what is left out is reported, with an example', () => {
    expect(describeField(factsOf('1', '2', 'sensor error'), '.').why).toBe(
      '2 of 3, besides 1 text, such as “sensor error”',
    );
  });

  test('numbers with a comma count as text where decimals stand after a point', () => {
    const facts = factsOf('4,9', '5', '6,25');
    expect(describeField(facts, ',')).toEqual({ kind: 'numbers', why: 'all 3' });
    expect(describeField(facts, '.')).toEqual({ kind: 'text', why: '2 of 3, besides 1 number' });
  });
});

describe('how a file is read', () => {
  const guess = (...columns: readonly (readonly string[])[]) =>
    guessReading(
      columns.map((cells) => factsOf(...cells)),
      0,
    );

  test.each([
    [',', null, ['1,5', '2,25', '3']],
    ['.', null, ['1.5', '2,000.25', '3']],
    ['.', 'dmy', ['13/3/2026', '8/3/2026']],
    ['.', 'mdy', ['3/13/2026', '3/8/2026']],
    ['.', 'dmy', ['8/3/2026']],
    ['.', null, ['2026-03-08', 'Alder']],
  ])('decimals by %j, dates %j, from %j', (decimal, dates, cells) => {
    expect(guess(cells).reading).toMatchObject({ decimal, dates });
  });

  test('a field with the other decimal sign keeps its own; one with both follows the file', () => {
    const { reading } = guess(['14.3', '2.1', '7.0'], ['4,9', '10,3'], ['1.5', '2,5', '3'], ['Alder', '3']);
    expect(reading).toMatchObject({ decimal: '.', as: ['values', 'comma', 'values', 'values'] });
    expect(inputOf('4,9', reading, 'comma')).toBe('4.9');
    expect(inputOf('4,9', reading, 'values')).toBe('4,9');
    expect(guess(['1,5', '2,5'], ['3.5']).reading).toMatchObject({ decimal: ',', as: ['values', 'point'] });
    // With a comma as the sign of the file, 1.234 would be a thousand and more.
    expect(inputOf('1.234', { ...reading, decimal: ',' }, 'point')).toBe('1.234');
  });

  test('dates that could be either are said to be so', () => {
    expect(guess(['8/3/2026']).why.dates).toContain('either way');
    expect(guess(['13/3/2026', '3/14/2026']).why.dates).toContain('the fewer stay text');
  });
});

describe('a cell', () => {
  const reading: TableReading = { decimal: ',', dates: 'dmy', formulas: false, header: 0, as: ['values'] };

  // ISO 80000-1, 7.3.1: digits may be grouped by spaces, and the decimal sign be a comma; points between groups are
  // common practice.
  test.each([
    ['1.234,50', '1234.50'],
    ['1 234,5', '1234.5'],
    ['-0,5 %', '-0.5%'],
    ['12', '12'],
    ['1.2,3', '1.2,3'],
    ['8/3/2026', '2026-03-08'],
    ['31/2/2026', '31/2/2026'],
    ['=1+1', "'=1+1"],
    ['Alder, weir', 'Alder, weir'],
  ])('%s', (raw, input) => {
    expect(inputOf(raw, reading, 'values')).toBe(input);
  });

  test('as text it stays letter by letter, and left out it is blank', () => {
    expect(inputOf('007', reading, 'text')).toBe("'007");
    expect(inputOf('Alder', reading, 'text')).toBe('Alder');
    expect(inputOf('007', reading, 'nothing')).toBe('');
  });
});

test.each<[string, string[][], number | null]>([
  [
    'the first row',
    [
      ['Station', 'Oxygen'],
      ['Alder', '4.9'],
    ],
    0,
  ],
  [
    'beneath a title',
    [
      ['Readings of March', ''],
      ['', ''],
      ['Station', 'Oxygen'],
      ['Alder', '4.9'],
    ],
    2,
  ],
  [
    'none where numbers come first',
    [
      ['1', '2'],
      ['3', '4'],
    ],
    null,
  ],
  ['none where nothing is beneath', [['Station', 'Oxygen']], null],
  ['one field', [['Station'], ['Alder']], 0],
  [
    'years are no labels',
    [
      ['Station', '2025'],
      ['Alder', '3'],
    ],
    null,
  ],
])('the row of labels: %s', (_, rows, header) => {
  expect(findHeader(rows, Math.max(...rows.map((cells) => cells.length)))).toBe(header);
});
