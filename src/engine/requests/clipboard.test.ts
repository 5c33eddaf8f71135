import fc from 'fast-check';
import { expect, test } from 'vitest';
import { writeCsv } from '../../core/exchange/csv/write-csv';
import { readPasted, spread } from './clipboard';

// RFC 4180 with tabs: a cell with a tab, a line break or a quote stands in quotes, and a quote is doubled.
test('a table of any texts comes back from the clipboard as it was written', () => {
  const table = fc
    .integer({ min: 1, max: 4 })
    .chain((width) =>
      fc.array(fc.array(fc.string(), { minLength: width, maxLength: width }), { minLength: 1, maxLength: 5 }),
    );
  fc.assert(
    fc.property(table, (rows) => {
      fc.pre(rows.flat().every((text) => !/[\0\r\n\uFEFF]/.test(text)) && rows.at(-1)!.some((text) => text !== ''));
      expect(readPasted(writeCsv({ rows, width: rows[0]!.length }, '\t'))).toEqual(rows);
    }),
  );
});

test.each([
  [
    'a\tb\n1\t2\n',
    [
      ['a', 'b'],
      ['1', '2'],
    ],
  ],
  [
    'a\tb\r\n1\t2',
    [
      ['a', 'b'],
      ['1', '2'],
    ],
  ],
  ['"one\ntwo"\tb', [['one\ntwo', 'b']]],
  ['5" pipe\tb', [['5" pipe', 'b']]],
  ['', [['']]],
])('%j', (text, rows) => expect(readPasted(text)).toEqual(rows));

test('one cell goes into each place of an area, its formula further along in each', () => {
  const cells = spread({ input: '=A1', by: { columns: 1, rows: 2 } }, { left: 3, top: 5, right: 4, bottom: 6 });
  expect(cells.map((row) => row.map(({ by }) => by))).toEqual([
    [
      { columns: 1, rows: 2 },
      { columns: 2, rows: 2 },
    ],
    [
      { columns: 1, rows: 3 },
      { columns: 2, rows: 3 },
    ],
  ]);
});
