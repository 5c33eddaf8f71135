import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyRule, makeSheet } from '../../../test/support/arbitrary-sheet';
import { operationsOf } from './registry';

test('a rule replaces a fill: cells and rows of records lose it, other fills and properties stay', () => {
  const sheet = makeSheet();
  const style = (row: string, field: string, fill: string) => ({ row, field, style: { fill, bold: true } }) as const;
  sheet.apply({
    kind: 'set-styles',
    cells: [style('r0', 'f1', '#ffeecc'), style('r1', 'f1', '#ddeeff'), style('header', 'f1', '#ffeecc')],
  });
  sheet.apply({ kind: 'change-rows', rows: [{ id: 'r2', style: { fill: '#ffeecc' } }] });
  const rule = { id: 'a', key: 'a0', rule: fc.sample(anyRule, { numRuns: 1, seed: 1 })[0]! };
  const edit = { do: 'put-rule-for-fill', rule, fill: '#ffeecc', fields: ['f1', 'f2', 'f3'] } as const;
  for (const operation of operationsOf(sheet, edit, { newId: () => 'new' })) sheet.apply(operation);
  const styleOf = (row: string) => sheet.styleAt(0, sheet.findSlot(row)!);
  expect([styleOf('r0'), styleOf('r1'), styleOf('header'), styleOf('r2')]).toEqual([
    { bold: true },
    { fill: '#ddeeff', bold: true },
    { fill: '#ffeecc', bold: true },
    undefined,
  ]);
});
