import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyInput, anyOperation, anyRule, contentsOf, makeSheet } from '../../../test/support/arbitrary-sheet';
import { tableWidth, transposed } from './cells';
import { Evaluation } from '../rules/evaluate/evaluation';
import { cellAddress, parseRanges } from '../sheet/address';
import { holdRanges } from '../formula/resolve/hold-ranges';
import { inRow, keepReferences, showReferences } from '../formula/resolve/keep-references';
import { shownAt } from '../sheet/shown-cell';
import type { Sheet } from '../sheet/sheet';
import { EditRefusal } from './editor';
import { findCells } from './find';
import { EDITORS, editWords, operationsOf, type Edit, type EditName } from './registry';
import type { RuleChange } from './rules';

let made = 0;
const tools = { newId: () => `new${++made}` };

/** As the engine does it: with what lets ranges follow. */
function apply(sheet: Sheet, edit: Edit) {
  const asked = operationsOf(sheet, edit, tools);
  const cells = holdRanges(sheet, asked);
  const operations = [...(cells.length ? [{ kind: 'set-cells' as const, cells }] : []), ...asked];
  const inverse = operations.flatMap((operation) => sheet.apply(operation).inverse.toReversed()).toReversed();
  return { operations, inverse };
}

/** A sheet of these rows, the first its header, calculated. */
function sheetOf(...rows: readonly (readonly string[])[]): Sheet {
  const sheet = makeSheet(Array<string>(rows.length - 1).fill(''));
  rows.forEach((inputs, position) => {
    const slot = sheet.slotAt(position);
    const cells = inputs.map((input, column) => ({
      ...sheet.cellIds(column, slot),
      input: keepReferences(input, sheet, inRow(sheet, slot)),
    }));
    sheet.apply({ kind: 'set-cells', cells });
  });
  return sheet;
}

/** The shown texts of an area, row by row. */
function shown(sheet: Sheet, range: string): string[][] {
  new Evaluation(sheet, {});
  const { left, top, right, bottom } = parseRanges(range)![0]!;
  return sheet.order
    .slice(top, bottom + 1)
    .map((slot) => sheet.columns.slice(left, right + 1).map((_, at) => shownAt(sheet, left + at, slot)));
}
const inputAt = (sheet: Sheet, column: number, position: number): string => {
  const slot = sheet.slotAt(position);
  return showReferences(sheet.column(column).inputAt(slot), sheet, slot);
};
const area = (range: string) => parseRanges(range)![0]!;

/** Every edit, of things that are there and things beyond. */
const column = fc.integer({ min: 0, max: 2 });
const position = fc.integer({ min: 0, max: 6 });
const range = fc.tuple(column, column, position, position).map(([a, b, c, d]) => ({
  left: Math.min(a, b),
  right: Math.max(a, b),
  top: Math.min(c, d),
  bottom: Math.max(c, d),
}));
const anyRuleId = fc.constantFrom('a', 'b', 'c');
const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({
    do: fc.constant('paste-cells' as const),
    column,
    position,
    rows: fc.array(
      fc.array(fc.record({ input: anyInput, style: fc.option(fc.constant({ bold: true })) }), {
        minLength: 1,
        maxLength: 4,
      }),
      {
        minLength: 1,
        maxLength: 12,
      },
    ),
  }),
  fc.record({ do: fc.constant('clear-cells' as const), area: range }),
  range.map((from): Edit => ({ do: 'fill-cells', from, to: { ...from, bottom: 6 } })),
  range.map((from): Edit => ({ do: 'fill-cells', from, to: { ...from, left: 0 } })),
  fc.record({
    do: fc.constant('replace-text' as const),
    text: fc.constantFrom('5', 'x', ''),
    by: anyInput,
    exact: fc.boolean(),
    pattern: fc.boolean(),
  }),
  fc.record({
    do: fc.constantFrom('insert-rows' as const, 'insert-fields' as const),
    at: fc.integer({ min: 0, max: 3 }),
    count: fc.constantFrom(1, 3),
  }),
  range.map(({ top, bottom }): Edit => ({ do: 'remove-rows', top, bottom })),
  fc.record({ do: fc.constantFrom('remove-duplicates' as const, 'add-totals' as const) }),
  range.map(({ top, bottom }): Edit => ({ do: 'duplicate-rows', top, bottom })),
  fc.tuple(range, position).map(([{ top, bottom }, to]): Edit => ({ do: 'move-rows', top, bottom, to })),
  fc
    .tuple(range, fc.constantFrom('record' as const, 'total' as const))
    .map(([{ top, bottom }, role]): Edit => ({ do: 'set-role', top, bottom, role })),
  fc
    .tuple(range, fc.option(fc.integer({ min: 1, max: 2000 })))
    .map(([{ top, bottom }, heightPx]): Edit => ({ do: 'set-height', top, bottom, heightPx })),
  fc
    .tuple(range, fc.constantFrom('sum' as const, 'average' as const, null))
    .map(([{ left, right }, is]): Edit => ({ do: 'set-total', left, right, is })),
  fc
    .tuple(column, fc.constantFrom('rising' as const, 'falling' as const))
    .map(([by, order]): Edit => ({ do: 'sort-rows', by: [{ column: by, order }] })),
  range.map(({ left, right }): Edit => ({ do: 'remove-fields', left, right })),
  fc.tuple(range, column).map(([{ left, right }, to]): Edit => ({ do: 'move-fields', left, right, to })),
  range.map(({ left, right }): Edit => ({ do: 'set-widths', left, right, widthsPx: [5] })),
  fc.tuple(range, fc.boolean()).map(([{ left, right }, hidden]): Edit => ({ do: 'hide-fields', left, right, hidden })),
  fc.record({
    do: fc.constant('apply-style' as const),
    area: range,
    patch: fc.constantFrom({ bold: true }, { bold: null, fill: '#ffeecc' }, { number: '0.0' }, { border: null }),
  }),
  range.map((at): Edit => ({ do: 'outline-cells', area: at, line: { style: 'solid', width: 2, color: '#000000' } })),
  fc.record({ do: fc.constant('clear-style' as const), area: range }),
  fc.record({ do: fc.constant('change-decimals' as const), area: range, by: fc.constantFrom(1 as const, -1 as const) }),
  fc.record({ do: fc.constantFrom('merge-cells' as const, 'split-cells' as const), area: range }),
  fc
    .tuple(range, fc.constantFrom(null, ['5', 'x', '5']))
    .map(([{ left, right }, allowed]): Edit => ({ do: 'set-allowed', left, right, allowed })),
  fc
    .tuple(range, fc.constantFrom(1 as const, -1 as const))
    .map(([{ top, bottom }, by]): Edit => ({ do: 'shift-level', top, bottom, by })),
  fc
    .tuple(range, fc.constantFrom('Limits', 'limits', 'B2', '2x'))
    .map(([area, name]): Edit => ({ do: 'name-cells', name, area })),
  fc.record({ do: fc.constant('remove-name' as const), name: fc.constantFrom('LIMITS', 'none') }),
  fc.record({ do: fc.constant('freeze-fields' as const), through: fc.option(column) }),
  fc.record({ do: fc.constant('band-records' as const), on: fc.boolean() }),
  anyRule.map((rule): Edit => ({ do: 'put-rules', rules: [{ id: rule.id, key: 'a0', rule }] })),
  fc.tuple(anyRule, fc.uniqueArray(fc.constantFrom('f1', 'f2', 'f3'))).map(([rule, fields]): Edit => ({
    do: 'put-rule-for-fill',
    rule: { id: rule.id, key: 'a0', rule },
    fill: '#ffeecc',
    fields,
  })),
  anyRuleId.map((rule): Edit => ({ do: 'duplicate-rule', rule })),
  fc.tuple(anyRuleId, fc.option(anyRuleId)).map(([rule, after]): Edit => ({ do: 'move-rule', rule, after })),
  fc.record({ do: fc.constant('remove-rules' as const), rules: fc.array(anyRuleId) }),
  fc.record({
    do: fc.constant('change-rules' as const),
    rules: fc.array(anyRuleId),
    to: fc.constantFrom<RuleChange>(
      { on: false },
      { settles: true },
      { look: { look: 'plum' } },
      { group: 'g' },
      { group: null },
    ),
  }),
  fc
    .tuple(fc.constantFrom('reach-rules' as const, 'carry-rules' as const), fc.array(anyRuleId), range)
    .map(([what, rules, area]): Edit => ({ do: what, rules, fields: ['f1'], areas: [area] })),
);

/** The result, or nothing where it cannot be done. */
function tried(sheet: Sheet, edit: Edit) {
  try {
    return apply(sheet, edit);
  } catch (error) {
    if (!(error instanceof EditRefusal)) throw error;
    return undefined;
  }
}

test('whatever is done can be taken back and done again, and has a name', () => {
  const seen = new Set<EditName>();
  fc.assert(
    fc.property(
      fc.array(anyOperation, { maxLength: 3 }),
      fc.array(anyEdit, { minLength: 1, maxLength: 3 }),
      (operations, edits) => {
        const sheet = makeSheet();
        for (const operation of operations)
          if (operation.kind !== 'remove-fields' && operation.kind !== 'remove-rows') sheet.apply(operation);
        for (const edit of edits) {
          if (sheet.fields.length < 3 || sheet.rowCount < 8) return;
          const before = contentsOf(sheet);
          const done = tried(sheet, edit);
          if (!done) continue;
          seen.add(edit.do);
          expect(editWords(edit)).toMatch(/^[^\n]{3,}$/);
          const after = contentsOf(sheet);
          for (const operation of done.inverse) sheet.apply(operation);
          expect(contentsOf(sheet)).toEqual(before);
          for (const operation of done.operations) sheet.apply(operation);
          expect(contentsOf(sheet)).toEqual(after);
        }
      },
    ),
    { numRuns: 1500 },
  );
  expect([...seen].sort()).toEqual(Object.keys(EDITORS).sort());
});

describe('filling on', () => {
  // The expected continuation of a series; common practice.
  test.each<[from: string[], down: string[]]>([
    [['3'], ['3', '3', '3']],
    [
      ['3', '5'],
      ['7', '9', '11'],
    ],
    [
      ['0.1', '0.2'],
      ['0.3', '0.4', '0.5'],
    ],
    [
      ['1', '2', '4'],
      ['1', '2', '4'],
    ],
    [['2026-02-27'], ['2026-02-28', '2026-03-01', '2026-03-02']],
    [
      ['2026-01-31', '2026-02-07'],
      ['2026-02-14', '2026-02-21', '2026-02-28'],
    ],
    [
      ['2026-01-15', '2026-02-15'],
      ['2026-03-15', '2026-04-15', '2026-05-15'],
    ],
    [['Group 8'], ['Group 9', 'Group 10', 'Group 11']],
    [['P007'], ['P008', 'P009', 'P010']],
    [
      ['yes', 'no'],
      ['yes', 'no', 'yes'],
    ],
    [['=B2*2'], ['=B3*2', '=B4*2', '=B5*2']],
    [['=$B$2+A$1'], ['=$B$2+A$1', '=$B$2+A$1', '=$B$2+A$1']],
  ])('%j goes on with %j', (from, down) => {
    const sheet = sheetOf(['One', 'Two', 'Three'], ...from.map((input) => ['', '', input]), ...down.map(() => []));
    apply(sheet, {
      do: 'fill-cells',
      from: area(`C2:C${from.length + 1}`),
      to: area(`C2:C${from.length + 1 + down.length}`),
    });
    expect(down.map((_, at) => inputAt(sheet, 2, from.length + 1 + at))).toEqual(down);
  });

  test('upwards and to the left it counts back', () => {
    const sheet = sheetOf(['One', 'Two', 'Three'], [], [], ['', '', '7'], ['', '', '9']);
    apply(sheet, { do: 'fill-cells', from: area('C4:C5'), to: area('C2:C5') });
    expect(shown(sheet, 'C2:C5')).toEqual([['3'], ['5'], ['7'], ['9']]);
    apply(sheet, { do: 'fill-cells', from: area('C2:C5'), to: area('A2:C5') });
    expect(shown(sheet, 'A2:B2')).toEqual([['3', '3']]);
  });
});

describe('pasting', () => {
  test('beyond the last row and field the sheet grows, and formulas move along', () => {
    const sheet = sheetOf(['One', 'Two', 'Three'], ['1', '2', '=A2+$B$2']);
    const by = { columns: 1, rows: 2 };
    apply(sheet, {
      do: 'paste-cells',
      column: 2,
      position: 2,
      rows: [
        [{ input: '5' }, { input: '=A2+$B$2', by }],
        [{ input: '6' }, { input: '=B4+$B$2', by: { columns: 1, rows: 0 } }],
      ],
    });
    expect([sheet.rowCount, sheet.fields.length]).toEqual([4, 4]);
    expect([inputAt(sheet, 3, 2), inputAt(sheet, 3, 3)]).toEqual(['=B4+$B$2', '=C4+$B$2']);
    expect(shown(sheet, 'C3:D4')).toEqual([
      ['5', '2'],
      ['6', '8'],
    ]);
  });

  test('too large a paste is refused in words', () => {
    const rows = Array.from({ length: 100_001 }, () => [{ input: '1' }, { input: '2' }]);
    expect(() => operationsOf(makeSheet(), { do: 'paste-cells', column: 0, position: 0, rows }, tools)).toThrow(
      /at most 200,000 are changed at once/,
    );
  });
});

test('duplicated rows calculate from where they stand', () => {
  const sheet = sheetOf(['One', 'Sum so far'], ['1', '=A2'], ['2', '=A3+B2'], ['3', '=A4+B3']);
  apply(sheet, { do: 'duplicate-rows', top: 2, bottom: 3 });
  expect(shown(sheet, 'A2:B6')).toEqual([
    ['1', '1'],
    ['2', '3'],
    ['3', '6'],
    ['2', '8'],
    ['3', '11'],
  ]);
});

test('rows and fields move to where they are put, and formulas still read the same cells', () => {
  const sheet = sheetOf(
    ['One', 'Two', 'Three'],
    ['1', '10', '=A2+B2'],
    ['2', '20', '=A2+B4'],
    ['3', '30', '=SUM(A$2:A$4)'],
  );
  apply(sheet, { do: 'move-rows', top: 3, bottom: 3, to: 1 });
  apply(sheet, { do: 'move-fields', left: 2, right: 2, to: 0 });
  expect(shown(sheet, 'A1:C4')).toEqual([
    ['Three', 'One', 'Two'],
    ['6', '3', '30'],
    ['11', '1', '10'],
    ['31', '2', '20'],
  ]);
});

test('a total stands under the last record with content, and the next record above it', () => {
  const sheet = sheetOf(['One', 'Two'], ['1', 'x'], ['4', 'y'], ['', ''], ['', '']);
  expect(sheet.nextRecordAt()).toBe(5);
  apply(sheet, { do: 'set-total', left: 0, right: 0, is: 'sum' });
  expect(shown(sheet, 'A4:A4')).toEqual([['5']]);
  expect(sheet.nextRecordAt()).toBe(3);
});

test('a row of totals sums numbers, averages percentages, and leaves texts', () => {
  const sheet = sheetOf(['Crew', 'Hours', 'Share'], ['Minnow', '3', '40%'], ['Heron', '5', '60%']);
  apply(sheet, { do: 'add-totals' });
  expect(shown(sheet, 'A4:C4')).toEqual([['Total', '8', '50%']]);
});

test('records that hold the same as one above are removed, whatever the case', () => {
  const sheet = sheetOf(['One', 'Two'], ['1', 'x'], ['2', 'x'], ['1', ' X'], ['', ''], ['', '']);
  apply(sheet, { do: 'remove-duplicates' });
  expect(shown(sheet, 'A2:A3')).toEqual([['1'], ['2']]);
  expect(sheet.rowCount).toBe(5);
});

test('a total covers all records, also those that come later', () => {
  const sheet = sheetOf(['One', 'Two'], ['1', 'x'], ['4', 'y']);
  apply(sheet, { do: 'set-total', left: 0, right: 0, is: 'average' });
  expect(shown(sheet, 'A4:A4')).toEqual([['2.5']]);
  apply(sheet, { do: 'insert-rows', at: 1, count: 1 });
  apply(sheet, { do: 'insert-rows', at: 4, count: 1 });
  apply(sheet, { do: 'paste-cells', column: 0, position: 4, rows: [[{ input: '10' }]] });
  expect(shown(sheet, 'A6:A6')).toEqual([['5']]);
  expect(inputAt(sheet, 0, 5)).toBe("=AVERAGE('One')");
});

test('whole fields keep a style for records to come; a cell’s own goes over its row’s, and that over its field’s', () => {
  const sheet = sheetOf(['One', 'Two'], ['1', '2'], ['3', '4']);
  apply(sheet, { do: 'apply-style', area: area('A1:A3'), patch: { fill: '#ffeecc', number: '0.0' } });
  apply(sheet, {
    do: 'apply-style',
    area: area('A2:A2'),
    patch: { bold: true, border: { top: { style: 'solid', width: 1, color: '#000000' } } },
  });
  apply(sheet, { do: 'insert-rows', at: 3, count: 1 });
  sheet.apply({ kind: 'change-rows', rows: [{ id: 'r0', style: { bold: false, italic: true } }] });
  expect(sheet.styleAt(0, sheet.slotAt(3))).toEqual({ fill: '#ffeecc' });
  expect(sheet.styleAt(0, sheet.slotAt(1))).toMatchObject({ fill: '#ffeecc', bold: true, italic: true });
  expect(shown(sheet, 'A2:B2')).toEqual([['1.0', '2']]);
  apply(sheet, { do: 'change-decimals', area: area('A1:A4'), by: 1 });
  expect(shown(sheet, 'A2:A2')).toEqual([['1.00']]);
});

describe('finding and replacing', () => {
  const sheet = () => sheetOf(['Station', 'Note'], ['Alder Weir', 'weir gate'], ['Écluse', '=A2&"!"'], ['WEIR', '']);
  const wanted = (text: string, more = {}) => ({ text, exact: false, pattern: false, ...more });
  const found = (text: string, more = {}) => {
    const made = sheet();
    new Evaluation(made, {});
    return findCells(made, wanted(text, more)).map((cell) => cellAddress(cell.column, cell.position));
  };
  test.each<[string, object, string[]]>([
    ['weir', {}, ['A2', 'B2', 'B3', 'A4']],
    ['weir', { exact: true }, ['B2']],
    ['ecluse', {}, ['A3']],
    ['ecluse', { exact: true }, []],
    ['^[A-Z]+$', { pattern: true, exact: true }, ['A4']],
    ['weir', { area: area('B1:B9') }, ['B2', 'B3']],
    ['A2&', {}, ['B3']],
    ['', {}, []],
    ['.', {}, []],
  ])('%j %j', (text, more, addresses) => expect(found(text, more)).toEqual(addresses));

  test('what is put in the place of it is taken as it is, in formulas too', () => {
    const replaced = sheet();
    apply(replaced, { do: 'replace-text', ...wanted('weir'), by: '$1 Lock' });
    expect([inputAt(replaced, 0, 1), inputAt(replaced, 1, 1), inputAt(replaced, 0, 3)]).toEqual([
      'Alder $1 Lock',
      '$1 Lock gate',
      '$1 Lock',
    ]);
    apply(replaced, { do: 'replace-text', ...wanted('A2&', { exact: true }), by: 'A4&' });
    expect(inputAt(replaced, 1, 2)).toBe('=A4&"!"');
    expect(() =>
      operationsOf(replaced, { do: 'replace-text', ...wanted('(', { pattern: true }), by: '' }, tools),
    ).toThrow('cannot be read as a pattern');
  });
});

test('a table can have more rows than a call takes arguments', () => {
  const rows = Array<{ input: string }[]>(200_000).fill([{ input: 'x' }, { input: 'y' }]);
  expect(tableWidth(rows)).toBe(2);
  expect(transposed(rows).map(({ length }) => length)).toEqual([200_000, 200_000]);
});

test('what a shorter row of a transposed table lacks leaves its cell as it is', () => {
  expect(transposed([[{ input: 'x' }], [{ input: 'y' }, { input: 'z' }]])).toEqual([
    [{ input: 'x' }, { input: 'y' }],
    [{}, { input: 'z' }],
  ]);
});
