import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { carryToSheet } from './carry-to-sheet';
import { Evaluation } from '../evaluate/evaluation';
import type { Rule } from '../shape/rule';

const VALUES = [
  [5, 7],
  [9, 7],
  [6, 6],
  [2, 8],
];
const from = sheetFromTable(
  { rows: [['Station', 'Oxygen', 'Planned'], ...VALUES.map(([a, b], at) => [`s${at}`, `${a}`, `${b}`])], width: 3 },
  { header: true },
);
/** The same fields in another order, with one between. */
const to = sheetFromTable(
  { rows: [['planned ', 'Note', 'OXYGEN'], ...VALUES.map(([a, b]) => [`${b}`, '', `${a}`])], width: 3 },
  { header: true },
);

const rule = (more: Partial<Rule>): Rule => ({
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: [from.field(1).id] },
  when: { kind: 'compare', is: '<', to: 6 },
  paints: 'cell',
  ...more,
});
/** The records that a rule paints in a column, by their place. */
const painted = (sheet: typeof from, made: Rule, column: number): number[] => {
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([made]);
  const running = evaluation.activeRules[0]!;
  expect(running.problem).toBeNull();
  return VALUES.flatMap((_, at) => (running.outcomeAt(column, sheet.slotAt(at + 1)) >= 0 ? at : []));
};
const carried = (made: Rule): Rule => {
  const found = carryToSheet(made, { from, to });
  if ('missing' in found) throw new Error(found.missing.join());
  return found.rule;
};

test.each<[string, Partial<Rule>]>([
  ['a threshold', {}],
  ['another field', { when: { kind: 'compare', is: '<', to: { field: from.field(2).id, times: 0.9 } } }],
  ['a formula over the columns of the row', { when: { kind: 'formula', formula: '=B2<C2*0.9' } }],
  ['a formula with a row above its own', { when: { kind: 'formula', formula: '=B3>$C2' } }],
  ['a formula over a whole field', { when: { kind: 'formula', formula: '=B2>AVERAGE($C$2:$C$5)' } }],
  ['a threshold from a formula', { when: { kind: 'compare', is: '>', to: { formula: '=C2' } } }],
])('%s paints the same records there', (_, more) => {
  const before = painted(from, rule(more), 1);
  expect(before.length).toBeGreaterThan(0);
  expect(painted(to, carried(rule(more)), 2)).toEqual(before);
});

test('fields that are not there are named, and nothing is carried', () => {
  expect(
    carryToSheet(rule({ reads: { fields: [from.field(0).id] }, paints: { fields: [from.field(1).id] } }), {
      from,
      to,
    }),
  ).toEqual({
    missing: ['Station'],
  });
  expect(carryToSheet(rule({ when: { kind: 'formula', formula: '=A2="s1"' } }), { from, to })).toEqual({
    missing: ['Station'],
  });
});

test('a rule over cells keeps its addresses', () =>
  expect(carried(rule({ reads: { cells: 'B2:B5' }, when: { kind: 'formula', formula: '=B2<3' } }))).toMatchObject({
    reads: { cells: 'B2:B5' },
    when: { formula: '=B2<3' },
  }));
