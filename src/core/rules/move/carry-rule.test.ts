import { expect, test } from 'vitest';
import { carryRule } from './carry-rule';
import type { Rule } from '../shape/rule';

const rule: Rule = {
  id: 'high',
  name: 'High',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'formula', formula: '=B2>$B$9*C2', at: 'B2' },
  paints: 'cell',
  look: { bold: true },
};

test('relative references and the cell that a formula is written for move along, fixed ones stay', () => {
  expect(carryRule(rule, { fields: ['f3'] }, { columns: 2, rows: 0 })).toEqual({
    ...rule,
    reads: { fields: ['f3'] },
    when: { kind: 'formula', formula: '=D2>$B$9*E2', at: 'D2' },
  });
});

test('a threshold that is read from a cell stays where it is, one that is calculated moves', () => {
  const between: Rule = {
    ...rule,
    when: { kind: 'compare', is: 'between', to: [{ cell: 'H1' }, { formula: '=B2+1' }] },
  };
  const carried = carryRule(between, { cells: 'C5:C9' }, { columns: 1, rows: 3 });
  expect(carried.when).toEqual({ kind: 'compare', is: 'between', to: [{ cell: 'H1' }, { formula: '=C5+1' }] });
  expect(carried.reads).toEqual({ cells: 'C5:C9' });
});
