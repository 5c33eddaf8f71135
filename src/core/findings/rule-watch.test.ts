import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, anyRule, makeSheet } from '../../../test/support/arbitrary-sheet';
import { Evaluation } from '../rules/evaluate/evaluation';
import type { Rule } from '../rules/shape/rule';
import type { Operation } from '../sheet/change';
import type { Sheet } from '../sheet/sheet';
import { RuleWatch } from './rule-watch';
import { putRules, rulesOf } from '../rules/shape/stored-rule';

const low: Rule = {
  id: 'low',
  name: 'Low',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { fill: '#aaaaaa' },
};

/** A sheet with evaluated rules, watched. */
class Watched {
  readonly sheet: Sheet = makeSheet(['5', '4', '9', '3']);
  readonly evaluation: Evaluation;
  readonly watch: RuleWatch;

  constructor(rules: readonly Rule[]) {
    this.sheet.apply(putRules(rules.map((rule, at) => ({ id: rule.id, key: `a${at}`, rule }))));
    this.evaluation = new Evaluation(this.sheet, {}, { now: 46_089.5 });
    this.evaluation.setRules(this.rules);
    this.watch = new RuleWatch(this.evaluation);
  }

  get rules(): Rule[] {
    return rulesOf(this.sheet).map(({ rule }) => rule);
  }

  do(...operations: Operation[]) {
    for (const operation of operations) {
      const { effects } = this.sheet.apply(operation);
      if (operation.kind === 'put-rules' || operation.kind === 'remove-rules') this.evaluation.setRules(this.rules);
      else this.evaluation.follow(effects);
    }
    return this.watch.crossings(0);
  }

  type(row: string, input: string) {
    return this.do({ kind: 'set-cells', cells: [{ row, field: 'f1', input }] });
  }

  /** By rule that has no problem: the cells to which it gives a look, evaluated from scratch. */
  painted(): Map<string, Set<string>> {
    const fresh = new Evaluation(this.sheet, {}, { now: 46_089.5 });
    fresh.setRules(this.rules);
    const watched = fresh.activeRules.filter((rule) => rule.works && !rule.variesByCell);
    const cells = this.sheet.order.flatMap((slot) =>
      this.sheet.fields.map((field, column) => ({ slot, column, field: field.id })),
    );
    return new Map(
      watched.map((rule) => {
        const read = new Set(rule.read.map(({ column }) => column));
        const shown = cells.filter(({ column, slot }) => read.has(column) && rule.shows(column, slot));
        return [rule.rule.id, new Set(shown.map(({ slot, field }) => `${this.sheet.rowId(slot)} ${field}`))];
      }),
    );
  }
}

test('what entered and left, put together, is what is painted by now', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 3, selector: ({ id }) => id }),
      fc.array(anyOperation, { minLength: 1, maxLength: 10 }),
      (rules, operations) => {
        // Rules and fields that change start over: a test of its own below.
        const kinds = ['set-cells', 'change-rows', 'insert-rows', 'remove-rows'];
        const watched = new Watched(rules);
        const counted = watched.painted();
        for (const operation of operations.filter(({ kind }) => kinds.includes(kind))) {
          // A cell that goes from one outcome to another leaves before it enters.
          for (const { way, rule, row, field } of watched.do(operation)) {
            const cell = `${row} ${field}`;
            expect(counted.get(rule)!.has(cell), `${way} ${cell}`).toBe(way === 'left');
            if (way === 'left') counted.get(rule)!.delete(cell);
            else counted.get(rule)!.add(cell);
          }
          for (const [rule, cells] of watched.painted()) {
            // One that could not work until now begins.
            if (!counted.has(rule)) counted.set(rule, cells);
            expect(counted.get(rule), rule).toEqual(cells);
          }
        }
      },
    ),
    { numRuns: 1000 },
  );
});

test('a crossing says where, what the cell shows and how many there are', () => {
  const watched = new Watched([low]);
  expect(watched.type('r0', '2.5')).toMatchObject([
    {
      rule: 'low',
      ruleName: 'Low',
      way: 'entered',
      outcome: '',
      row: 'r0',
      field: 'f1',
      label: 'One',
      after: '2.5',
      painted: 3,
    },
  ]);
  expect(watched.type('r0', '2.6')).toEqual([]);
  expect(watched.type('r0', '7')).toMatchObject([{ way: 'left', after: '7', painted: 2 }]);
});

test('a record that is removed has left, and has entered when it is back', () => {
  const watched = new Watched([low]);
  expect(watched.do({ kind: 'remove-rows', rows: ['r1'] })).toMatchObject([
    { way: 'left', row: 'r1', record: 'a deleted record', after: '' },
  ]);
  expect(
    watched.do({ kind: 'insert-rows', rows: [{ id: 'r1', key: 'b', role: 'record', cells: { f1: '1' } }] }),
  ).toMatchObject([{ way: 'entered', row: 'r1', after: '1' }]);
});

test('a band is left for another, each by its name', () => {
  const bands: Rule = {
    ...low,
    when: { kind: 'bands', cuts: [4, 8], edge: 'lower', looks: [{ fill: '#111111' }, null, { fill: '#333333' }] },
  };
  const found = new Watched([bands]).type('r3', '12');
  expect(found.map(({ way }) => way)).toEqual(['left', 'entered']);
  expect(found[0]!.outcome).toContain('4');
  expect(found[1]!.outcome).toContain('8');
});

test('what a rule’s author does to it is no finding: changed, switched off and on, it begins anew', () => {
  const watched = new Watched([low]);
  const put = (rule: Rule) => watched.do(putRules([{ id: 'low', key: 'a0', rule }]));
  expect(put({ ...low, when: { kind: 'compare', is: '<', to: 100 } })).toEqual([]);
  expect(watched.type('r0', '101')).toMatchObject([{ way: 'left' }]);
  expect(put({ ...low, on: false })).toEqual([]);
  expect(watched.type('r0', '1')).toEqual([]);
  expect(put(low)).toEqual([]);
  expect(watched.type('r0', '2')).toEqual([]);
});

test('scales and bars, which shade every number, are not watched', () => {
  const stops = [
    { at: 'least' as const, color: '#ffffff' },
    { at: 'greatest' as const, color: '#000000' },
  ];
  const watched = new Watched([{ ...low, when: { kind: 'scale', stops, per: 'all' } } as Rule]);
  expect(watched.type('r0', '1000')).toEqual([]);
  expect(watched.type('r0', 'x')).toEqual([]);
});

test('a rule with a temporary problem reports what happened meanwhile once it works again', () => {
  // The upper cut is a cell: while it is below the lower one there are no bands.
  const when = {
    kind: 'icons',
    set: 'arrows3',
    cuts: [{ at: 4 }, { at: { cell: 'B2' } }],
    reverse: false,
    hide: [1, 2],
    per: 'all',
  };
  const watched = new Watched([{ ...low, when } as Rule]);
  const limit = (input: string) => watched.do({ kind: 'set-cells', cells: [{ row: 'r0', field: 'f2', input }] });
  limit('8');
  expect(watched.type('r2', '1')).toMatchObject([{ row: 'r2', way: 'entered' }]);
  expect(limit('2')).toEqual([]);
  expect(watched.type('r2', '6')).toEqual([]);
  expect(limit('8')).toMatchObject([{ row: 'r2', way: 'left', after: '6' }]);
});
