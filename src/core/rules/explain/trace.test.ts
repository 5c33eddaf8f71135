import { expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Evaluation } from '../evaluate/evaluation';
import type { Rule } from '../shape/rule';
import { traceCell } from './trace';

const rules: readonly Rule[] = [
  {
    id: 'off',
    name: 'Off',
    on: false,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'compare', is: '<', to: 9 },
    paints: 'cell',
    look: { bold: true },
  },
  {
    id: 'low',
    name: 'Low',
    on: true,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'record',
    look: { fill: '#111111' },
  },
  {
    id: 'mean',
    name: 'Mean',
    on: true,
    settles: true,
    reads: { fields: ['f1'] },
    when: { kind: 'average', is: 'below' },
    paints: 'cell',
    look: { fill: '#222222', bold: true },
  },
  {
    id: 'band',
    name: 'Band',
    on: true,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'bands', cuts: [2], looks: [{ italic: true }, null] },
    paints: 'cell',
  },
  {
    id: 'gone',
    name: 'Gone',
    on: true,
    settles: false,
    reads: { fields: ['f9'] },
    when: { kind: 'average', is: 'above' },
    paints: 'cell',
  },
];

const trace = (column: number, slot: number) => {
  const evaluation = new Evaluation(makeSheet(['1', '5', 'x', '']), {});
  evaluation.setRules(rules);
  return traceCell(evaluation, {}, { column, slot });
};

test('every rule that reaches a cell, what it compared, set and lost', () => {
  expect(trace(0, 1).map(({ rule, state, compared, set, lost }) => ({ rule, state, compared, set, lost }))).toEqual([
    { rule: 'off', state: 'off', compared: '1 is below 9', set: {}, lost: [] },
    { rule: 'low', state: 'matched', compared: '1 is below 5', set: { fill: '#111111' }, lost: [] },
    {
      rule: 'mean',
      state: 'matched',
      compared: '1 is below average 3 of 2 numbers',
      set: { bold: true },
      lost: [{ property: 'fill', to: 'low' }],
    },
    { rule: 'band', state: 'settled-before', compared: '1 is in band 1 of 2: under 2', set: {}, lost: [] },
    { rule: 'gone', state: 'problem', compared: null, set: {}, lost: [] },
  ]);
});

test('a cell that is painted but not read names the cell that was read', () => {
  const [low] = trace(2, 1);
  expect(low).toMatchObject({ rule: 'low', state: 'matched', cell: 'A2', set: { fill: '#111111' } });
});

test('what was not compared says why', () => {
  expect(trace(0, 3).find(({ rule }) => rule === 'low')).toMatchObject({
    state: 'not-matched',
    note: 'a text against a number: not compared',
  });
  expect(trace(0, 4).find(({ rule }) => rule === 'low')).toMatchObject({
    state: 'not-matched',
    note: 'a blank is never compared',
  });
});

test('a header is reached by none but the rule that has a problem', () =>
  expect(trace(0, 0).map(({ rule }) => rule)).toEqual(['gone']));

test('the statistics of a rule follow edits also while it is off', () => {
  const evaluation = new Evaluation(makeSheet(['1', '5', 'x', '']), {});
  evaluation.setRules([{ ...rules[2]!, on: false }]);
  evaluation.follow(
    evaluation.sheet.apply({ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input: '3' }] }).effects,
  );
  expect(traceCell(evaluation, {}, { column: 0, slot: 2 })[0]).toMatchObject({
    state: 'off',
    compared: '5 is below average 4 of 2 numbers',
  });
});
