import fc from 'fast-check';
import { expect, test } from 'vitest';
import { writeCsv } from '../../core/exchange/csv/write-csv';
import { withDecimalPoint } from '../../core/values/decimal-comma';
import { cellsToPaste, readPasted } from './clipboard';

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
  const area = { left: 3, top: 5, right: 4, bottom: 6 };
  const copied = {
    token: 't',
    area: { left: 2, top: 3, right: 2, bottom: 3 },
    rows: [[{ input: '=A1', shown: '1', style: null }]],
  };
  const pasted = cellsToPaste({ kind: 'paste', area, token: 't', table: '', how: 'all' }, copied, (text) => text);
  expect(pasted.area).toEqual(area);
  expect(pasted.rows.map((row) => row.map(({ by }) => by))).toEqual([
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

test('a table from elsewhere is read as it would be typed; what was copied here is not', () => {
  const area = { left: 0, top: 0, right: 0, bottom: 0 };
  const paste = (token: string | null) =>
    cellsToPaste(
      { kind: 'paste', area, token, table: '4,9\tAlder', how: 'all' },
      { token: 't', area, rows: [[{ input: '4,9', shown: '4,9', style: null }]] },
      withDecimalPoint,
    ).rows.map((row) => row.map(({ input }) => input));
  expect(paste(null)).toEqual([['4.9', 'Alder']]);
  expect(paste('t')).toEqual([['4,9']]);
});
