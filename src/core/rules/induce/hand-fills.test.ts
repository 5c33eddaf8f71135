import { expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { handFills } from './hand-fills';

const [SAND, SKY] = ['#ffeecc', '#ddeeff'];

/** Six records over three fields: `cells` and whole `rows` of them are filled. */
function filled(cells: readonly (readonly [row: string, field: string, fill: string])[], rows: readonly string[] = []) {
  const sheet = makeSheet(['1', '2', '3', '4', '5', '6']);
  for (const field of ['f2', 'f3'])
    sheet.apply({ kind: 'set-cells', cells: [0, 1, 2].map((at) => ({ row: `r${at}`, field, input: 'x' })) });
  sheet.apply({ kind: 'set-styles', cells: cells.map(([row, field, fill]) => ({ row, field, style: { fill } })) });
  sheet.apply({ kind: 'change-rows', rows: rows.map((id) => ({ id, style: { fill: SAND } })) });
  return handFills(sheet).map(({ slots, ...fill }) => {
    const found: string[] = [];
    slots.forEach((slot) => found.push(sheet.rowId(slot)));
    return { ...fill, rows: found };
  });
}

test('fills of one colour in the same records are one, in others another', () => {
  const cells = [
    ['r0', 'f1', SAND],
    ['r1', 'f1', SAND],
    ['r0', 'f2', SAND],
    ['r1', 'f2', SAND],
    ['r2', 'f3', SAND],
    ['r3', 'f3', SAND],
    ['r4', 'f3', SAND],
    ['r0', 'f3', SKY],
    ['header', 'f1', SAND],
  ] as const;
  expect(filled(cells)).toEqual([
    { fill: SAND, fields: ['f3'], isRecord: false, count: 3, rows: ['r2', 'r3', 'r4'] },
    { fill: SAND, fields: ['f1', 'f2'], isRecord: false, count: 2, rows: ['r0', 'r1'] },
  ]);
});

test('a row with a fill fills each of its fields, once also where a cell has it as well', () => {
  const cells = [
    ['r1', 'f2', SAND],
    ['r4', 'f2', SAND],
  ] as const;
  expect(filled(cells, ['r1', 'r4'])).toEqual([
    { fill: SAND, fields: ['f1', 'f2', 'f3'], isRecord: true, count: 2, rows: ['r1', 'r4'] },
  ]);
});
