import { newField } from '../../src/core/sheet/field';
import fc from 'fast-check';
import { generateNKeysBetween } from 'fractional-indexing';
import type { Rule } from '../../src/core/rules/shape/rule';
import type { Style } from '../../src/core/looks/style';
import type { Operation } from '../../src/core/sheet/change';
import type { SheetPart } from '../../src/core/sheet/sheet-part';
import { Sheet } from '../../src/core/sheet/sheet';
import { rulesOf } from '../../src/core/rules/shape/stored-rule';

const FIELDS = ['f1', 'f2', 'f3'].map((id, at) => newField(id, `a${at}`));
const KEYS = generateNKeysBetween(null, null, 40);

/** Formulas that read their own row, other rows, blocks, whole fields, one another and themselves. */
const FORMULAS = [
  '=A2+1',
  '=B3*2',
  '=SUM(A2:B5)',
  '=Two',
  '=IF(A3>4;B3;C4)',
  '=AVERAGE(One)',
  '=COUNT(C:C)/0',
  '=INDIRECT("A"&4)',
  '=SUM(Limit)',
  '=B2&"x"',
  '=IF(1;"";A1)',
] as const;

/** Inputs of every kind, few enough that ties and repeats are common. */
export const anyInput = fc.constantFrom(
  '',
  '5',
  '5',
  '-5',
  '4.9',
  '5.1',
  '7',
  '1e3',
  '70%',
  'x',
  'X ',
  'done',
  '2026-03-08',
  '2026-03-09',
  'TRUE',
  '#N/A',
  ...FORMULAS,
);

const rowId = fc.integer({ min: 0, max: 19 }).map((n) => `r${n}`);
const fieldId = fc.constantFrom('f1', 'f2', 'f3');
const cells = fc.array(
  fc.record(
    { row: rowId, field: fieldId, input: anyInput, was: fc.constantFrom('', '5', 'x') },
    { requiredKeys: ['row', 'field', 'input'] },
  ),
  { minLength: 1, maxLength: 6 },
);

const operand = fc.oneof(
  fc.constantFrom(5, 7, 0.7, 'done', '2026-03-08', true),
  fc.record({ cell: fc.constantFrom('A2', '$B$3', 'C30') }),
  fieldId.map((field) => ({ field, times: 0.9 })),
);
const when = fc.oneof(
  fc.record({
    kind: fc.constant('compare' as const),
    is: fc.constantFrom('=', '!=', '<', '<=', '>', '>='),
    to: operand,
    asShown: fc.boolean(),
    magnitude: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('compare' as const),
    is: fc.constantFrom('between', 'outside'),
    to: fc.tuple(operand, operand),
  }),
  fc.record({
    kind: fc.constant('average' as const),
    is: fc.constantFrom('above', 'below', 'at-or-above', 'at-or-below'),
    deviations: fc.constantFrom(0, 0.5),
    per: fc.oneof(
      fc.constantFrom('all', 'field'),
      fieldId.map((group) => ({ group })),
    ),
  }),
  fc
    .record({
      kind: fc.constant('bands' as const),
      cuts: fc.constantFrom([5], [5, 7], [{ field: 'f3' }, 9]),
      edge: fc.constantFrom('lower', 'upper'),
    })
    .map((bands) => ({
      ...bands,
      looks: [{ fill: '#111111' }, null, { fill: '#333333', bold: true }].slice(0, bands.cuts.length + 1),
    })),
);

const per = fc.oneof(
  fc.constantFrom('all' as const, 'field' as const),
  fieldId.map((group) => ({ group })),
);
const position = fc.constantFrom(
  'least',
  'greatest',
  5,
  { percent: 50 },
  { percentile: 50 },
  { cell: 'A3' },
  { formula: '=$A$2+1' },
);
const looks = { right: { fill: '#00aa00' }, wrong: { fill: '#aa0000' }, empty: null };

/** Conditions of the other kinds, each with the words that make a difference. */
const otherWhen = fc.oneof(
  fc.record({
    kind: fc.constant('text'),
    is: fc.constantFrom('contains', 'lacks', 'starts', 'ends', 'equals', 'differs', 'pattern'),
    any: fc.constantFrom(['x'], ['5', 'DONE'], [{ cell: 'A3' }], [{ field: 'f2' }]),
    case: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('state'),
    is: fc.constantFrom('blank', 'filled', 'error', 'valid', 'number', 'text', 'date', 'logical'),
  }),
  fc.record({
    kind: fc.constant('date'),
    is: fc.constantFrom('today', 'past', 'future', { last: 2, unit: 'day' }, { this: 'month' }, { following: 'week' }),
  }),
  fc.record({
    kind: fc.constant('date'),
    is: fc.constantFrom('before', 'after', 'on'),
    to: fc.constantFrom('2026-03-09', { field: 'f2' }, { cell: 'B4' }),
  }),
  fc.record({ kind: fc.constant('rank'), is: fc.constantFrom('top', 'bottom'), n: fc.constantFrom(1, 3), per }),
  fc.record({ kind: fc.constant('rank'), is: fc.constantFrom('top', 'bottom'), percent: fc.constantFrom(0, 30), per }),
  fc.record({
    kind: fc.constant('repeat'),
    is: fc.constantFrom('repeated', 'unique', 'first', 'again'),
    case: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('repeat'),
    is: fc.constantFrom('repeated', 'unique', 'first', 'again'),
    by: fc.constantFrom(['f1'], ['f2', 'f3']),
  }),
  fc.record({
    kind: fc.constant('formula'),
    formula: fc.constantFrom(
      '=A2>5',
      '=$B2="x"',
      '=A3+B2',
      '=$A3>$B2',
      '=OR($A3="x";$B3<>"done")',
      '=COUNTIF(A$2:A$8;A2)>1',
      '=One>AVERAGE(One)',
      '=INDIRECT("B3")=5',
      '=AND($A2>$B2*0.9;OR($C2="x";$A2>=5))',
    ),
  }),
  fc.record({
    kind: fc.constant('key'),
    expect: fc.constantFrom({ field: 'f2' }, ['done', '5'], { cells: 'C2:C11' }),
    near: fc.constantFrom(0, 1),
    tolerance: fc.constantFrom(0, '10%'),
    looks: fc.constant(looks),
  }),
  fc.record({ kind: fc.constant('category'), looks: fc.constant({ x: { fill: '#123456' }, '5': null }) }),
  fc.record({
    kind: fc.constant('category'),
    palette: fc.constantFrom('set2', ['#111111', '#eeeeee']),
    order: fc.constantFrom('seen', 'alphabet'),
  }),
  fc.record({
    kind: fc.constant('scale'),
    stops: fc.array(fc.record({ at: position, color: fc.constantFrom('#000000', '#ff0000', '#ffffff') }), {
      minLength: 2,
      maxLength: 3,
    }),
    per,
  }),
  fc.record({
    kind: fc.constant('bar'),
    from: fc.oneof(fc.constant('auto'), position),
    axis: fc.constantFrom('zero', 'middle', 'none'),
    per,
  }),
  fc.record({
    kind: fc.constant('icons'),
    set: fc.constant('arrows3'),
    cuts: fc.tuple(position, position).map((cuts) => cuts.map((at) => ({ at }))),
    reverse: fc.boolean(),
    hide: fc.constantFrom([], [1]),
    per,
  }),
);

/** Rules of all kinds over the three fields. */
export const anyRule: fc.Arbitrary<Rule> = fc
  .record({
    id: fc.constantFrom('a', 'b', 'c', 'd'),
    on: fc.boolean(),
    settles: fc.boolean(),
    reads: fc.oneof(
      fc.subarray(['f1', 'f2', 'f3'], { minLength: 1 }).map((fields) => ({ fields })),
      fc.constantFrom({ cells: 'A2:B6' }, { fields: ['f1'], roles: ['header' as const, 'record' as const] }),
    ),
    when: fc.oneof(when, { weight: 2, arbitrary: otherWhen }),
    paints: fc.oneof(
      fc.constantFrom('cell' as const, 'record' as const),
      fieldId.map((field) => ({ fields: [field] })),
    ),
    look: fc.constantFrom(
      { fill: '#aaaaaa' },
      { text: '#222222', bold: true },
      { border: { around: { style: 'solid' as const, width: 1, color: '#000000' } } },
    ),
  })
  .map((rule) => ({ name: rule.id, ...rule }) as Rule);

const style: fc.Arbitrary<Style> = fc.constantFrom(
  { bold: true },
  { fill: '#ffeecc', align: 'center' as const },
  { number: '0.00' },
);

/** Operations on rows, fields and what lies over them. */
const layoutOperations: fc.Arbitrary<Operation>[] = [
  fc.record({
    kind: fc.constant('change-rows' as const),
    rows: fc.array(
      fc.record(
        {
          id: rowId,
          key: fc.constantFrom(...KEYS),
          role: fc.constantFrom('record' as const, 'header' as const, 'total' as const),
          style: fc.option(style),
          heightPx: fc.option(fc.constantFrom(20, 60)),
          level: fc.option(fc.constantFrom(0, 2)),
        },
        { requiredKeys: ['id'] },
      ),
      { minLength: 1, maxLength: 3 },
    ),
  }),
  fc.record({
    kind: fc.constant('put-fields' as const),
    fields: fc
      .record({
        id: fc.constantFrom('f1', 'f2', 'f3', 'f4'),
        key: fc.constantFrom('Z1', 'a0', 'a1V', 'a3'),
        format: fc.constantFrom(null, '0.0'),
      })
      .map(({ id, key, format }) => [newField(id, key, { format })]),
  }),
  fc.record({ kind: fc.constant('remove-fields' as const), fields: fc.constantFrom(['f2'], ['f4'], ['f3', 'f4']) }),
  fc.record({
    kind: fc.constant('set-styles' as const),
    cells: fc.array(fc.record({ row: rowId, field: fieldId, style: fc.option(style) }), { minLength: 1, maxLength: 4 }),
  }),
  fc.record({
    kind: fc.constant('put-parts' as const),
    parts: fc.constantFrom<SheetPart[][]>(
      [{ id: 'limit', kind: 'name', name: 'Limit', refersTo: '=$A$3' }],
      [{ id: 'limit', kind: 'name', name: 'limit', refersTo: '=$B$2:$B$5' }],
      [{ id: 'm1', kind: 'merge', top: 'r1', bottom: 'r2', left: 'f1', right: 'f2' }],
    ),
  }),
  fc.record({ kind: fc.constant('remove-parts' as const), parts: fc.constantFrom(['limit'], ['m1', 'limit']) }),
];

/** Operations of every kind on a sheet of `makeSheet`; some name rows and rules that are not there. */
export const anyOperation: fc.Arbitrary<Operation> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ kind: fc.constant('set-cells' as const), cells }) },
  fc.record({
    kind: fc.constant('insert-rows' as const),
    rows: fc.uniqueArray(
      fc.record({
        id: rowId,
        key: fc.constantFrom(...KEYS),
        role: fc.constantFrom('record' as const, 'total' as const),
        cells: fc.dictionary(fieldId, anyInput),
      }),
      { minLength: 1, maxLength: 3, selector: (row) => row.id },
    ),
  }),
  fc.record({ kind: fc.constant('remove-rows' as const), rows: fc.uniqueArray(rowId, { minLength: 1, maxLength: 3 }) }),
  fc.record({
    kind: fc.constant('put-rules' as const),
    rules: anyRule.map((rule) => [{ id: rule.id, key: KEYS[rule.id.charCodeAt(0) - 97]!, rule }]),
  }),
  fc.record({ kind: fc.constant('remove-rules' as const), rules: fc.constantFrom(['a'], ['b', 'c']) }),
  ...layoutOperations,
);

/** A sheet of a header and ten records with mixed inputs. */
export function makeSheet(
  inputs: readonly string[] = ['5', '4.9', 'x', '', '7', '70%', 'done', '2026-03-08', '-5', '6'],
): Sheet {
  const made = new Sheet(FIELDS);
  // Beyond those that operations use, after all of them.
  const more = Math.max(0, inputs.length * 2 + 1 - KEYS.length);
  const keys = [...KEYS, ...generateNKeysBetween(KEYS.at(-1)!, null, more)];
  const row = (id: string, at: number, values: readonly string[]) => {
    const role = id === 'header' ? 'header' : 'record';
    const slot = made.appendRow({ id, key: keys[at * 2]!, role });
    values.forEach((input, column) => made.columns[column]!.set(slot, input, role === 'header'));
  };
  row('header', 0, ['One', 'Two', 'Three']);
  inputs.forEach((input, at) =>
    row(`r${at}`, at + 1, [input, inputs[(at + 3) % inputs.length]!, inputs[(at * 7) % inputs.length]!]),
  );
  return made;
}

/** All that a sheet holds, in a form that can be compared. */
export const contentsOf = (sheet: Sheet) => ({
  fields: sheet.fields,
  rows: sheet.order.map((slot) => sheet.storedRow(slot)),
  rules: rulesOf(sheet),
  parts: [...sheet.parts.values()].sort((a, b) => (a.id < b.id ? -1 : 1)),
});
