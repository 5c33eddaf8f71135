import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Column } from '../../core/sheet/column/column';
import { newField } from '../../core/sheet/field';
import { anyInput, anyOperation, anyRule, contentsOf, makeSheet } from '../../../test/support/arbitrary-sheet';
import { Evaluation } from '../../core/rules/evaluate/evaluation';
import { reportEvaluation } from '../../core/rules/evaluate/evaluate-report';
import { SheetPacker, unpackSheet } from './packed-sheet';

const ABOUT = { id: 's', name: 'S', settings: {}, sequence: 0, fields: [], rules: [], parts: [] };

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

test('the inputs of large fields come through, whatever they are', () => {
  const input = fc.oneof(
    { weight: 5, arbitrary: fc.integer().map(String) },
    { weight: 5, arbitrary: fc.integer({ min: -1e7, max: 1e7 }).map((cents) => String(cents / 100)) },
    { weight: 2, arbitrary: fc.double().map(String) },
    { weight: 3, arbitrary: fc.string() },
    {
      weight: 1,
      arbitrary: fc.constantFrom('-0', '0', '1e21', '1e+21', '1.50', '5 %', '\ufeffx', '=1+1', '2026-03-08'),
    },
  );
  const many = Array.from({ length: 1000 }, (_, at) => `other ${at}`);
  fc.assert(
    fc.property(fc.array(input, { maxLength: 200 }), fc.boolean(), (some, isLarge) => {
      const inputs = [...(isLarge ? many : []), ...some, ...some];
      const packer = new SheetPacker({ ...ABOUT, fields: [newField('f1', 'a0')] });
      inputs.forEach((each, at) => packer.add({ id: `r${at}`, key: 'a0', role: 'record', cells: { f1: each } }));
      const { sheet } = unpackSheet(packer.pack().buffer);
      const column = new Column();
      column.fit(inputs.length);
      inputs.forEach((each, slot) => column.set(slot, each));
      const all = Array.from(inputs.keys());
      expect(all.map((slot) => sheet.column(0).inputAt(slot))).toEqual(inputs);
      expect(all.map((slot) => sheet.column(0).valueAt(slot))).toEqual(all.map((slot) => column.valueAt(slot)));
      expect(sheet.column(0).numbers.subarray(0, all.length)).toEqual(column.numbers.subarray(0, all.length));
      expect(sheet.column(0).hasDates).toBe(column.hasDates);
    }),
    { numRuns: 60 },
  );
});

// Against the sheet that was packed, which is made cell by cell.
test('a large sheet that was packed is worked on as the one it was made of', () => {
  const many = Array.from({ length: 1100 }, (_, at) => String(at / 100));
  fc.assert(
    fc.property(
      fc.array(anyInput, { maxLength: 20 }),
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 3, selector: ({ id }) => id }),
      fc.array(anyOperation, { maxLength: 10 }),
      (...[first, rules, operations]) => {
        const sheet = makeSheet([...first, ...many]);
        const packer = new SheetPacker({ ...ABOUT, fields: sheet.fields });
        for (const slot of sheet.order) packer.add(sheet.storedRow(slot));
        const { sheet: packed } = unpackSheet(packer.pack().buffer);
        packed.parts.put([...sheet.parts.values()]);
        const [made, unpacked] = [sheet, packed].map((each) => {
          const evaluation = new Evaluation(each, {}, { now: 46_089.5 });
          evaluation.setRules(rules);
          for (const operation of operations) evaluation.follow(each.apply(operation).effects);
          return { contents: contentsOf(each), found: reportEvaluation(evaluation) };
        });
        expect(unpacked).toEqual(made);
      },
    ),
    { numRuns: 40 },
  );
});

test('bytes of another version are refused', () => {
  const packed = new SheetPacker(ABOUT).pack();
  const text = new TextDecoder().decode(packed).replace('"v":3', '"v":9');
  const changed = new TextEncoder().encode(text).buffer;
  expect(() => unpackSheet(changed)).toThrow(RangeError);
});
