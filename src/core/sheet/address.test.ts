import { expect, test } from 'vitest';
import { cellAddress, columnLetters, parseAddress, parseRanges } from './address';

test.each([
  [0, 'A'],
  [25, 'Z'],
  [26, 'AA'],
  [701, 'ZZ'],
  [702, 'AAA'],
])('column %d is %s', (column, letters) => {
  expect(columnLetters(column)).toBe(letters);
  expect(parseAddress(`${letters}1`)).toEqual({ column, position: 0 });
});

test('anchors and case do not matter', () => {
  expect(parseAddress('$b$7')).toEqual({ column: 1, position: 6 });
  expect(cellAddress(1, 6)).toBe('B7');
});

test.each(['', 'A', '7', 'A0', 'A1:B2', 'ABCD1', '1A'])('%j is not an address', (text) =>
  expect(parseAddress(text)).toBeUndefined(),
);

test('ranges are read either way round', () => {
  expect(parseRanges('E7:b2 G2')).toEqual([
    { left: 1, right: 4, top: 1, bottom: 6 },
    { left: 6, right: 6, top: 1, bottom: 1 },
  ]);
  expect(parseRanges('B2:E7:F8')).toBeUndefined();
  expect(parseRanges('B2;E7')).toBeUndefined();
});
