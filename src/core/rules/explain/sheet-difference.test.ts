import { expect, test } from 'vitest';
import type { Operation } from '../../sheet/change';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { sheetDifference } from './sheet-difference';

const ROWS = [
  ['Station', 'Oxygen', 'Twice'],
  ['Alder Weir', '4.2', '=B2*2'],
  ['Birch Ford', '8.1', '=B3*2'],
  ['Cedar Sluice', '6', '=B4*2'],
];

/** The sheet after some operations, under one rule with a limit. */
function after(limit: number, ...operations: Operation[]): Evaluation {
  const sheet = sheetFromTable({ rows: ROWS, width: 3 }, { header: true });
  for (const operation of operations) sheet.apply(operation);
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([
    {
      id: 'low',
      name: 'Low',
      on: true,
      settles: false,
      reads: { fields: [sheet.field(1).id] },
      when: { kind: 'compare', is: '<', to: limit },
      paints: 'cell',
      look: { fill: '#f7d3c8' },
    },
  ]);
  return evaluation;
}

const [row, field] = (({ sheet }) =>
  [(at: number) => sheet.rowId(sheet.slotAt(at)), (at: number) => sheet.field(at).id] as const)(after(5));
const told = (before: Evaluation, now: Evaluation) =>
  sheetDifference(before, now).cells.map(({ record, label, before: was, after: is }) => [
    `${label} of ${record}`,
    [was.shown, ...was.rules].join(' '),
    [is.shown, ...is.rules].join(' '),
  ]);

test('a sheet does not differ from itself', () =>
  expect(sheetDifference(after(5), after(5))).toEqual({ cells: [], isCut: false, added: [], removed: [] }));

test('an entered value is listed with the formula results and the looks that follow from it', () => {
  const entered = after(5, { kind: 'set-cells', cells: [{ row: row(1), field: field(1), input: '7' }] });
  expect(told(after(5), entered)).toEqual([
    ['Oxygen of Alder Weir', '4.2 Low', '7'],
    ['Twice of Alder Weir', '8.4', '14'],
  ]);
});

test('another threshold alone changes looks, and no value', () =>
  expect(told(after(5), after(7))).toEqual([['Oxygen of Cedar Sluice', '6', '6 Low']]));

test('records that were added and deleted are named, and moved ones are matched by their identity', () => {
  const changed = after(
    5,
    { kind: 'remove-rows', rows: [row(2)] },
    { kind: 'insert-rows', rows: [{ id: 'new', key: 'zz', role: 'record', cells: { [field(0)]: 'Dipper Bridge' } }] },
  );
  expect(sheetDifference(after(5), changed)).toMatchObject({ added: ['Dipper Bridge'], removed: ['Birch Ford'] });
});
