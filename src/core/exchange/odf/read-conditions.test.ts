import { expect, test } from 'vitest';
import { readCondition } from './read-conditions';

// The conditions of ISO/IEC 26300-1, 19.469, and what they say.
test.each([
  ['cell-content()<5', { kind: 'compare', is: '<', to: 5 }],
  ['cell-content() >= -2.5', { kind: 'compare', is: '>=', to: -2.5 }],
  ['cell-content()="Alder ""Weir"""', { kind: 'compare', is: '=', to: 'Alder "Weir"' }],
  ['cell-content()!=TRUE()', { kind: 'compare', is: '!=', to: true }],
  ['of:cell-content()>[.$B$3]', { kind: 'compare', is: '>', to: { cell: 'B3' } }],
  ['cell-content()<[.C2]*2', { kind: 'compare', is: '<', to: { formula: '=C2*2' } }],
  ['cell-content-is-between(1,10)', { kind: 'compare', is: 'between', to: [1, 10] }],
  [
    'cell-content-is-not-between(MIN([.A1];2),"x,y")',
    { kind: 'compare', is: 'outside', to: [{ formula: '=MIN(A1;2)' }, 'x,y'] },
  ],
  ['is-true-formula([.$D2]>AVERAGE([.$D$2:.$D$9]))', { kind: 'formula', formula: '=$D2>AVERAGE($D$2:$D$9)', at: 'D2' }],
])('%s', (text, when) => {
  expect(readCondition(text, 'D2', 'Readings')).toEqual({ when });
});

test.each([
  'cell-content-is-whole-number()',
  'cell-content()<',
  'cell-content-is-between(1)',
  'is-true-formula(NOWHERE([.A1]))',
  "cell-content()>[$'Other'.A1]",
  '',
])('%j has no words here', (text) => {
  expect(readCondition(text, 'A1', 'Readings')).toHaveProperty('lost');
});
