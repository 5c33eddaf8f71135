import { expect, test } from 'vitest';
import { contentsOf, makeSheet } from '../../test/support/arbitrary-sheet';
import { SheetPacker, unpackSheet } from './packed-sheet';

test('a sheet that is packed and unpacked is the same sheet', () => {
  const sheet = makeSheet(['5', "'007", '', '=A1', 'é\u{1f30a}', '70%', 'x'.repeat(300), '#N/A']);
  const rules = [
    {
      id: 'r',
      key: 'a0',
      rule: {
        id: 'r',
        name: 'R',
        on: true,
        settles: false,
        reads: { fields: ['f1'] },
        when: { kind: 'average' as const, is: 'above' as const },
        paints: 'cell' as const,
      },
    },
  ];
  const parts = [{ id: 'limit', kind: 'name' as const, name: 'Limit', refersTo: '=$A$2' }];
  sheet.apply({ kind: 'change-rows', rows: [{ id: 'r1', style: { bold: true }, heightPx: 40, level: 1 }] });
  sheet.apply({ kind: 'set-styles', cells: [{ row: 'r2', field: 'f3', style: { fill: '#ffeecc' } }] });
  const packer = new SheetPacker({
    id: 's',
    name: 'Sheet',
    settings: { dates: 'dmy' },
    sequence: 41,
    fields: sheet.fields,
    rules,
    parts,
  });
  for (const slot of sheet.order) packer.add(sheet.storedRow(slot));
  const { sheet: unpacked, head } = unpackSheet(packer.pack().buffer);
  expect(contentsOf(unpacked)).toEqual({ ...contentsOf(sheet), rules, parts });
  expect(head).toMatchObject({ id: 's', name: 'Sheet', sequence: 41, settings: { dates: 'dmy' } });
  expect(unpacked.columns.map((column) => Array.from(column.tags.slice(0, 9)))).toEqual(
    sheet.columns.map((column) => Array.from(column.tags.slice(0, 9))),
  );
});

test('bytes of another version are refused', () => {
  const packed = new SheetPacker({
    id: 's',
    name: 'S',
    settings: {},
    sequence: 0,
    fields: [],
    rules: [],
    parts: [],
  }).pack();
  const text = new TextDecoder().decode(packed).replace('"v":2', '"v":9');
  const changed = new TextEncoder().encode(text).buffer;
  expect(() => unpackSheet(changed)).toThrow(RangeError);
});
