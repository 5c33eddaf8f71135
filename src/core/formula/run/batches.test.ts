import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Evaluation } from '../../rules/evaluate/evaluation';
import { Calculation } from '../calculate/calculation';
import { newField } from '../../sheet/field';
import { Sheet } from '../../sheet/sheet';
import type { Rule } from '../../rules/shape/rule';
import { WorkMeter } from '../values/work-meter';

const cell = fc.constantFrom('A1', '$B1', '$C1', 'A$2', '$B2');
const number = fc.oneof(
  { weight: 3, arbitrary: cell },
  { weight: 1, arbitrary: fc.constantFrom('2', '0', '1.5') },
  {
    weight: 2,
    arbitrary: fc.tuple(fc.constantFrom('-', ''), cell, fc.constantFrom('%', '')).map((parts) => parts.join('')),
  },
);
const sum = fc.tuple(number, fc.constantFrom('+', '-', '*', '/', '/'), number).map(([a, by, b]) => `(${a}${by}${b})`);
const compares = fc.constantFrom('=', '<>', '<', '<=', '>', '>=');
const comparison = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.tuple(fc.oneof(number, sum), compares, fc.oneof(number, sum)).map((parts) => parts.join('')),
  },
  { weight: 1, arbitrary: fc.tuple(cell, fc.constantFrom('=', '<>')).map(([at, is]) => `${at}${is}"Weir"`) },
);
const { condition } = fc.letrec<{ condition: string }>((tie) => ({
  condition: fc.oneof(
    { depthSize: 'small' },
    comparison,
    fc.tuple(fc.constantFrom('AND', 'OR'), tie('condition'), tie('condition')).map(([f, a, b]) => `${f}(${a};${b})`),
    tie('condition').map((inner) => `NOT(${inner})`),
  ),
}));
const input = fc.constantFrom(
  '',
  '',
  '0',
  '1',
  '2.5',
  '-3',
  '1e308',
  'weir',
  'mill',
  "'7",
  'TRUE',
  'FALSE',
  '2026-05-04',
  '=1/0',
  '=""',
);

/** More than one batch. */
const ROWS = 1100;

/** A sheet of three fields whose formulas are calculated. */
function sheetOf(inputs: readonly (readonly string[])[]): Sheet {
  const fields = [0, 1, 2].map((at) => newField(`f${at}`, `a${at}`));
  const made = new Sheet(fields);
  inputs.forEach((row, at) => {
    const slot = made.appendRow({ id: `r${at}`, key: `a${String(at).padStart(4, '0')}`, role: 'record' });
    row.forEach((text, column) => made.column(column).set(slot, text));
  });
  const world = {
    sheet: made,
    now: 46_200,
    findSheet: () => undefined,
    findName: () => undefined,
    work: new WorkMeter(),
  };
  new Calculation(made, world).calculateAll();
  return made;
}

const ruleOf = (formula: string): Rule => ({
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f0', 'f1', 'f2'] },
  when: { kind: 'formula', formula, at: 'A1' },
  paints: 'cell',
});

/** Which records a rule matches, by field: all at once, and asked one by one. */
function matched(sheet: Sheet, formula: string) {
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([ruleOf(formula)]);
  const rule = evaluation.activeRules[0]!;
  return {
    atOnce: [...rule.outcomes.values()].map(({ has }) => sheet.order.map((slot) => has.has(slot))),
    byOne: sheet.columns.map((_, column) => sheet.order.map((slot) => rule.outcomeAt(column, slot) === 0)),
  };
}

// IF is no part of the quick ways: with it the whole formula goes the slow way, row by row.
test('a formula over many rows gives what it gives for each by itself, whatever is in the cells', () => {
  const rows = fc.array(fc.tuple(input, input, input), { minLength: 1, maxLength: 40 });
  fc.assert(
    fc.property(condition, rows, (formula, some) => {
      const sheet = sheetOf(Array.from({ length: ROWS }, (_, row) => some[row % some.length]!));
      const quick = matched(sheet, `=${formula}`);
      const { byOne } = matched(sheet, `=IF(TRUE;${formula})`);
      expect([quick.atOnce, quick.byOne]).toEqual([byOne, byOne]);
    }),
    { numRuns: 150 },
  );
});
