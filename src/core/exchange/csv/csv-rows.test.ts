import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { CsvRows, SEPARATORS, type Separator } from './csv-rows';

const cell = fc.string({
  unit: fc.constantFrom('a', 'é', '"', ',', ';', '\t', '|', '\n', ' ', '\u{1f41f}'),
  maxLength: 6,
});
const table = fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 8 });

/** The rows of a text that comes in pieces of some lengths, one after another. */
function inPieces(text: string, lengths: readonly number[], separator: Separator): string[][] {
  const reader = new CsvRows({ separator, quote: '"' });
  const rows: string[][] = [];
  let at = 0;
  for (let turn = 0; at < text.length; turn++) {
    const length = lengths[turn % lengths.length]!;
    rows.push(...reader.push(text.slice(at, at + length)));
    at += length;
  }
  return [...rows, ...reader.end()];
}

// Written by Papa Parse, which is another reader and writer of RFC 4180.
test('a text gives the same rows however it is cut', () => {
  const form = fc.record({ separator: fc.constantFrom(...SEPARATORS), newline: fc.constantFrom('\r\n', '\n') });
  const lengths = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 5 });
  fc.assert(
    fc.property(table, lengths, form, (rows, cuts, { separator, newline }) => {
      const text = Papa.unparse(rows, { delimiter: separator, newline, quotes: true }) + newline;
      expect(inPieces(text, cuts, separator)).toEqual(rows);
    }),
  );
});

describe('line ends', () => {
  test.each([
    ['a,b\r1,2\r3,4', 'CR alone'],
    ['a,b\r\n1,2\n3,4\r', 'a mixture'],
  ])('%j: %s', (text) => {
    const wanted = [
      ['a', 'b'],
      ['1', '2'],
      ['3', '4'],
    ];
    for (let length = 1; length < 8; length++) expect(inPieces(text, [length], ',')).toEqual(wanted);
  });
});

test('without quotes they are letters', () => {
  const reader = new CsvRows({ separator: ';', quote: '' });
  expect([...reader.push('5" pipe;"x\n1;2\n'), ...reader.end()]).toEqual([
    ['5" pipe', '"x'],
    ['1', '2'],
  ]);
});
