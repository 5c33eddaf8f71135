import { generateNKeysBetween } from 'fractional-indexing';
import Papa from 'papaparse';
import { expect, test } from 'vitest';
import { EXPORT_FORMATS } from '../../core/exchange/export-formats';
import type { ExportOptions } from '../../core/exchange/exported-file';
import { exportSource } from '../../core/exchange/export-source';
import { newField } from '../../core/sheet/field';
import { openFile } from './open-file';
import { evaluated, SAVED } from '../../../test/support/workbook';

const ROWS = [
  ['Station', 'Oxygen', 'Share', 'Day', 'Twice'],
  ['Alder; "Weir"', '1234.5', '0.256', '2026-03-08', '=B2*2'],
  ["'=SUM(1)", '-0.25', '', '', '=A2'],
  ['+47 11', '7', '1', 'line\nbreak', '=1/0'],
];
const keys = generateNKeysBetween(null, null, ROWS.length);
const evaluation = evaluated({
  fields: ROWS[0]!.map((_, at) =>
    newField(`f${at}`, `a${at}`, { format: [null, '#,##0.00', '0.0%', null, null][at]! }),
  ),
  rows: ROWS.map((row, at) => ({
    id: `r${at}`,
    key: keys[at]!,
    role: at ? 'record' : 'header',
    cells: Object.fromEntries(row.flatMap((input, column) => (input === '' ? [] : [[`f${column}`, input]]))),
  })),
  rules: [],
});
const written = (options: ExportOptions) =>
  [...EXPORT_FORMATS.csv.write(exportSource(evaluation, { name: 'Readings', looks: SAVED }), options).parts].join('');
/** The cells as another reader of RFC 4180 finds them. */
const cellsOf = (text: string, delimiter = ',') => Papa.parse<string[]>(text.trimEnd(), { delimiter }).data;

test('values as they are shown; what would be taken for a formula is marked as text', () => {
  expect(cellsOf(written({}))).toEqual([
    ROWS[0],
    ['Alder; "Weir"', '1,234.50', '25.6%', '2026-03-08', '2469'],
    ["'=SUM(1)", '-0.25', '', '', 'Alder; "Weir"'],
    ["'+47 11", '7.00', '100.0%', 'line\nbreak', '#DIV/0!'],
  ]);
  expect(cellsOf(written({ guard: false }))[2]![0]).toBe('=SUM(1)');
});

test('what was typed, formulas with letters and numbers', () => {
  expect(cellsOf(written({ values: 'typed', guard: false }))).toEqual(ROWS);
  // What was typed as text is marked as text; what was typed as a formula is one.
  const marked = ROWS.map((row) => row.map((input) => (input === '+47 11' ? "'+47 11" : input)));
  expect(cellsOf(written({ values: 'typed' }))).toEqual(marked);
});

test('a decimal comma for programs of other countries: it is found again, and the values are the same', async () => {
  const text = written({ separator: ';', decimal: ',' });
  expect(cellsOf(text, ';')[1]).toEqual(['Alder; "Weir"', '1.234,50', '25,6%', '2026-03-08', '2469']);
  const file = await openFile(new File([text], 'readings.csv'), () => {});
  expect(file.preview()).toMatchObject({ form: { separator: ';' }, reading: { decimal: ',' } });
  let lines = '';
  for await (const piece of file.lines('Readings', () => {})) lines += piece;
  const rows = lines
    .split('\n')
    .flatMap((line) =>
      line.startsWith('{"row"') ? [Object.values((JSON.parse(line) as { row: { cells: object } }).row.cells)] : [],
    );
  expect(rows[1]).toEqual(['Alder; "Weir"', '1234.50', '25.6%', '2026-03-08', '2469']);
});
