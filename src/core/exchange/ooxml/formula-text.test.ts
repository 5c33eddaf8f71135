import { expect, test } from 'vitest';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { fromOoxmlFormula, toOoxmlFormula } from './formula-text';

// ISO/IEC 29500-1, 18.17, beside ISO/IEC 26300-4 (OpenFormula): the same formulas in the signs of each.
const SAME: readonly (readonly [there: string, here: string])[] = [
  ['SUM(A1:B2,C3)', '=SUM(A1:B2;C3)'],
  ['IF(A1>=0,"a, b;c","say ""x""")', '=IF(A1>=0;"a, b;c";"say ""x""")'],
  ['SUM({1,2;3,4})', '=SUM({1;2|3;4})'],
  ['$A$1&B$2', '=$A$1&B$2'],
  ['SUM(A1:B3 B2:C4)', '=SUM(A1:B3!B2:C4)'],
  ['SUM((A1,C1))', '=SUM((A1~C1))'],
  ['-A1^2%', '=-A1^2%'],
  ['A1<>"#N/A"', '=A1<>"#N/A"'],
];

test.each(SAME)('%s is read as %s', (there, here) => {
  expect(fromOoxmlFormula(there, 'Readings')).toBe(here);
});

test.each(SAME)('%s is written from %s', (there, here) => {
  expect(toOoxmlFormula(parseFormula(here).tree)).toBe(there);
});

test('references to the sheet itself lose its name, those to others keep theirs', () => {
  expect(fromOoxmlFormula("'My readings'!A1+readings!B2", 'My readings')).toBe("=A1+$'readings'.B2");
  expect(fromOoxmlFormula("'It''s'!A1", "It's")).toBe('=A1');
});

test('functions that came later have their beginning there, and none here', () => {
  expect(fromOoxmlFormula('_xlfn.XOR(A1,_xlfn._xlws.SORT(B1))', 'S')).toBe('=XOR(A1;SORT(B1))');
  expect(toOoxmlFormula(parseFormula('=XOR(A1;B1)').tree)).toBe('_xlfn.XOR(A1,B1)');
});

test.each(['[1]Sheet!A1', "'[Book]Sheet'!A1", 'SUM(Table1[Amount])', 'A1#', '@A1'])('%s has no words here', (there) => {
  expect(fromOoxmlFormula(there, 'S')).toBeUndefined();
});
