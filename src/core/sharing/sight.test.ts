import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyInput, anyRule, makeSheet } from '../../../test/support/arbitrary-sheet';
import { Evaluation } from '../rules/evaluate/evaluation';
import type { Rule } from '../rules/shape/rule';
import type { Sheet } from '../sheet/sheet';
import { OUTCOME_TIMES, type Filling } from '../sheet/sheet-part';
import type { Own, Reader } from './role';
import { VisibleSheet } from './sight';
import { putRules, rulesOf } from '../rules/shape/stored-rule';

/*
 * Noninterference (Goguen and Meseguer, "Security policies and security models", 1982): what a reader observes does not
 * depend on hidden cells. Which cells are hidden is written here once more, from docs/sharing.md and not from the code.
 */

const FIELDS = ['f1', 'f2', 'f3'];
const someFields = fc.subarray(FIELDS);
const cell = fc.record({ row: fc.integer({ min: 0, max: 9 }).map((n) => `r${n}`), field: fc.constantFrom(...FIELDS) });

const anyFilling: fc.Arbitrary<Filling> = fc.record({
  id: fc.constant('filling' as const),
  kind: fc.constant('filling' as const),
  open: someFields,
  openCells: fc.array(cell, { maxLength: 3 }),
  kept: someFields,
  outcomes: fc.constantFrom(...OUTCOME_TIMES),
  showsOthers: fc.boolean(),
});
const anyOwn: fc.Arbitrary<Own> = fc.record({
  fields: fc.option(someFields),
  rows: fc.option(fc.subarray(['r0', 'r1', 'r2', 'r3'])),
});
const anyReader: fc.Arbitrary<Reader> = fc.oneof(
  { weight: 4, arbitrary: anyOwn.map((own): Reader => ({ role: 'filler', own })) },
  fc.constant<Reader>({ role: 'viewer', own: { fields: null, rows: null } }),
);

interface Scene {
  readonly filling: Filling;
  readonly hidden: readonly string[];
  readonly rules: readonly Rule[];
  readonly reader: Reader;
}

/** Fields of which nothing at all is for the reader. */
function keptFrom({ filling, hidden, rules, reader }: Scene): Set<string> {
  const answers = rules.flatMap(({ when }) => {
    if (when.kind !== 'key' || !('expect' in when)) return [];
    const expect = when.expect as unknown;
    // The answer keys of arbitrary rules stand in a field, in C2:C11, or in the rule itself.
    if (Array.isArray(expect)) return [];
    return 'field' in (expect as object) ? [(expect as { field: string }).field] : ['f3'];
  });
  return new Set([...hidden, ...answers, ...(reader.role === 'filler' ? filling.kept : [])]);
}

function isSecret(scene: Scene, { row, field }: { readonly row: string; readonly field: string }): boolean {
  const { filling, reader } = scene;
  if (keptFrom(scene).has(field)) return true;
  if (reader.role === 'viewer' || filling.showsOthers) return false;
  const isOpen =
    (row !== 'header' && filling.open.includes(field)) ||
    filling.openCells.some((open) => open.row === row && open.field === field);
  const { fields, rows } = reader.own;
  return isOpen && !((fields === null || fields.includes(field)) && (rows === null || rows.includes(row)));
}

const cells = (sheet: Sheet) =>
  sheet.order.flatMap((slot) =>
    sheet.fields.map(({ id }, column) => ({ row: sheet.rowId(slot), field: id, slot, column })),
  );

function evaluationOf(inputs: readonly string[], scene: Scene): Evaluation {
  const sheet = makeSheet(inputs);
  sheet.apply({
    kind: 'put-fields',
    fields: sheet.fields.map((field) => ({ ...field, hidden: scene.hidden.includes(field.id) })),
  });
  sheet.apply({ kind: 'put-parts', parts: [scene.filling] });
  sheet.apply(putRules(scene.rules.map((rule, at) => ({ id: rule.id, key: `a${at}`, rule }))));
  const evaluation = new Evaluation(sheet, {}, { now: 46_089.5 });
  evaluation.setRules(scene.rules);
  return evaluation;
}

/** Everything that is sent to a reader: inputs, fields, parts, and, while outcomes are withheld, every look. */
function observed(evaluation: Evaluation, reader: Reader): unknown {
  const { sheet } = evaluation;
  const sight = new VisibleSheet(evaluation, reader);
  const isWithheld =
    reader.role === 'filler' && sheet.parts.get('filling')!.kind === 'filling' && outcomesOf(sheet) === 'withheld';
  const sent = cells(sheet).filter(({ column }) => sight.columns.includes(column));
  return {
    fields: sight.fields(),
    parts: sight.parts(),
    inputs: sent.map(({ column, slot }) => sight.inputAt(column, slot)),
    looks: isWithheld
      ? sight
          .rules()
          .map((rule) => [
            rule.rule.id,
            sent
              .filter(({ column, slot }) => sight.isVisible(column, slot))
              .map(({ column, slot }) => rule.shows(column, slot) && rule.outcomeAt(column, slot)),
          ])
      : null,
  };
}

const outcomesOf = (sheet: Sheet): string => {
  const part = sheet.parts.get('filling');
  return part?.kind === 'filling' ? part.outcomes : '';
};

const anyScene = fc.record({
  filling: anyFilling,
  hidden: fc.subarray(FIELDS, { maxLength: 1 }),
  rules: fc.uniqueArray(anyRule, { maxLength: 3, selector: ({ id }) => id }),
  reader: anyReader,
});
const anyInputs = fc.array(anyInput, { minLength: 10, maxLength: 10 });
const isFormula = (input: string): boolean => input.startsWith('=');

/** Whether a rule that is off and groups by a hidden field has a problem depends on what is in that field. */
const HIDDEN_GROUP: [Scene, string[], string[]] = [
  {
    filling: {
      id: 'filling',
      kind: 'filling',
      open: [],
      openCells: [],
      kept: [],
      outcomes: 'withheld',
      showsOthers: false,
    },
    hidden: ['f3'],
    rules: [
      {
        id: 'a',
        name: 'a',
        on: false,
        settles: false,
        reads: { cells: 'A2:B6' },
        when: { kind: 'icons', set: 'arrows3', cuts: [{ at: 'least' }, { at: 5 }], per: { group: 'f3' } },
        paints: 'cell',
        look: { fill: '#aaaaaa' },
      },
    ],
    reader: { role: 'filler', own: { fields: null, rows: null } },
  },
  ['=A2+1', '', '', '', '2026-03-09', '', '', '', '4.9', ''],
  Array<string>(33).fill(''),
];

test('whatever is in the cells that a reader may not see, they get the same', () => {
  fc.assert(
    fc.property(anyScene, anyInputs, fc.array(anyInput, { minLength: 33, maxLength: 33 }), (scene, inputs, others) => {
      // A formula that viewers get may read a hidden field: that is what it is shown for.
      fc.pre(scene.reader.role === 'filler');
      const [one, other] = [evaluationOf(inputs, scene), evaluationOf(inputs, scene)];
      const kept = keptFrom(scene);
      for (const [at, { row, field, slot, column }] of cells(other.sheet).entries()) {
        // By their labels formulas name fields: they are left as they are.
        if (row === 'header' || !isSecret(scene, { row, field })) continue;
        // Fillers enter no formulas: where they type, one value stands for another.
        const was = other.sheet.column(column).inputAt(slot);
        if (!kept.has(field) && (isFormula(was) || isFormula(others[at]!))) continue;
        const { effects } = other.sheet.apply({ kind: 'set-cells', cells: [{ row, field, input: others[at]! }] });
        other.follow(effects);
      }
      expect(observed(other, scene.reader)).toEqual(observed(one, scene.reader));
    }),
    { numRuns: 500, examples: [HIDDEN_GROUP] },
  );
});

test('nothing that is typed into a cell that is not for a reader is in what they get; all else is', () => {
  fc.assert(
    fc.property(anyScene, (scene) => {
      const names = FIELDS.map((field) => `in ${field}`);
      const evaluation = evaluationOf(['x'], scene);
      const { sheet } = evaluation;
      for (const { row, field } of cells(sheet))
        sheet.apply({ kind: 'set-cells', cells: [{ row, field, input: `in ${field} of ${row}` }] });
      const sight = new VisibleSheet(evaluation, scene.reader);
      for (const { row, field, column, slot } of cells(sheet)) {
        const told = sight.columns.includes(column) ? sight.inputAt(column, slot) : '';
        if (isSecret(scene, { row, field })) expect(told, `${row} ${field}`).toBe('');
        // Of a field that is another filler's in all its records even the label is left out.
        else if (sight.columns.includes(column)) expect(told).toBe(`${names[column]} of ${row}`);
        else expect(keptFrom(scene).has(field) || scene.filling.open.includes(field)).toBe(true);
      }
    }),
    { numRuns: 300 },
  );
});

test('a filler gets the settings of their own cells, and a viewer none', () => {
  fc.assert(
    fc.property(anyScene, (scene) => {
      const told = new VisibleSheet(evaluationOf(['5'], scene), scene.reader)
        .parts()
        .flatMap((part) => (part.kind === 'filling' ? part : []));
      expect(told).toHaveLength(scene.reader.role === 'filler' ? 1 : 0);
      if (scene.reader.role === 'viewer') return;
      const { own } = scene.reader;
      expect(told[0]!.kept).toEqual([]);
      for (const field of told[0]!.open)
        expect(!keptFrom(scene).has(field) && (own.fields?.includes(field) ?? true)).toBe(true);
      for (const open of told[0]!.openCells) {
        expect(keptFrom(scene).has(open.field)).toBe(false);
        expect((own.fields?.includes(open.field) ?? true) && (own.rows?.includes(open.row) ?? true)).toBe(true);
      }
    }),
  );
});

test('while outcomes are withheld, no answer key judges for a filler, whether its answers stand in cells or in the rule', () => {
  fc.assert(
    fc.property(fc.array(anyRule, { minLength: 1, maxLength: 4 }), anyFilling, anyOwn, (rules, filling, own) => {
      const sheet = makeSheet();
      sheet.apply(putRules(rules.map((rule, at) => ({ id: rule.id, key: `a${at}`, rule }))));
      sheet.apply({ kind: 'put-parts', parts: [{ ...filling, outcomes: 'withheld' }] });
      const evaluation = new Evaluation(sheet, {});
      evaluation.setRules(rulesOf(sheet).map(({ rule }) => rule));
      const judging = new VisibleSheet(evaluation, { role: 'filler', own }).rules();
      expect(judging.filter(({ rule }) => rule.when.kind === 'key')).toEqual([]);
    }),
  );
});
