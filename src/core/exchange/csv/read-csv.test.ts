import { expect, test } from 'vitest';
import { readCsv } from './read-csv';

const rows = (text: string) => {
  const table = readCsv(text);
  return 'rows' in table ? table.rows : table;
};

// RFC 4180, section 2: line ends, quotes around separators, line breaks and doubled quotes.
test('quoted cells', () =>
  expect(rows('a,b\r\n"x,1","say ""yes""\nthen"\r\n')).toEqual([
    ['a', 'b'],
    ['x,1', 'say "yes"\nthen'],
  ]));
test('the last line may have no end', () =>
  expect(rows('a,b\n1,2')).toEqual([
    ['a', 'b'],
    ['1', '2'],
  ]));
test('a blank line is a blank record unless it is the last', () =>
  expect(rows('a\n1\n\n2\n\n')).toEqual([['a'], ['1'], [''], ['2']]));
test('short rows are filled up', () =>
  expect(rows('a,b,c\n1\n')).toEqual([
    ['a', 'b', 'c'],
    ['1', '', ''],
  ]));
test('a mark of byte order is passed over', () => expect(rows('\ufeffa\n1')).toEqual([['a'], ['1']]));
test('an empty file has no rows', () => expect(rows('')).toEqual([]));

test.each([
  ['a,b\n1,2,3\n', 2, '3 cells'],
  ['a\n"open\nstill', 2, 'never closed'],
  ['a\nb\0\n', 2, 'NUL'],
  ['a\n"x"y\n', 2, 'quote'],
])('%j is a problem', (text, line, words) => {
  const problem = rows(text);
  expect(problem).toMatchObject({ message: expect.stringContaining(words) as string });
  expect(Math.abs(Number((problem as { place: string }).place.replace('line ', '')) - line)).toBeLessThanOrEqual(1);
});
