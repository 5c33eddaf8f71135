import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyOperation, makeSheet } from '../../../../test/support/arbitrary-sheet';
import type { Sheet } from '../../sheet/sheet';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Calculation } from './calculation';
import { WorkMeter } from '../values/work-meter';

const contextOf = (sheet: Sheet) => ({
  now: 46_089.5,
  findSheet: () => undefined,
  findName: () => undefined,
  work: new WorkMeter(),
  sheet,
});
function calculate(sheet: Sheet): Calculation {
  return new Calculation(sheet, contextOf(sheet));
}
const valuesOf = (sheet: Sheet) => sheet.order.map((slot) => sheet.columns.map((column) => column.valueAt(slot)));
const sheetOf = (...rows: readonly (readonly string[])[]) =>
  sheetFromTable({ rows, width: rows[0]!.length }, { header: true });
const shownIn = (sheet: Sheet, column: number) => sheet.order.map((slot) => sheet.column(column).entryAt(slot).shown);

test('what edits calculate anew is what calculating everything gives', () => {
  fc.assert(
    fc.property(fc.array(anyOperation, { maxLength: 20 }), (operations) => {
      const sheet = makeSheet();
      const calculation = calculate(sheet);
      for (const operation of operations) calculation.follow(sheet.apply(operation).effects);
      const kept = valuesOf(sheet);
      calculate(sheet);
      expect(kept).toEqual(valuesOf(sheet));
    }),
    { numRuns: 1000 },
  );
});

test('effects tell of every cell whose value an edit changed, and of what it held', () => {
  const sheet = sheetOf(['a', 'b', 'c'], ['1', '=A2*2', '=B2+B3'], ['5', '=A3*2', 'x']);
  const calculation = calculate(sheet);
  expect(shownIn(sheet, 2)).toEqual(['c', '12', 'x']);
  const edit = sheet.apply({
    kind: 'set-cells',
    cells: [{ ...sheet.cellIds(0, 1), input: '4' }],
  });
  const effects = calculation.follow(edit.effects);
  expect(effects.map((effect) => effect.kind === 'cell' && [effect.column, effect.slot, effect.before.number])).toEqual(
    [
      [0, 1, 1],
      [1, 1, 2],
      [2, 1, 12],
    ],
  );
  expect(shownIn(sheet, 2)).toEqual(['c', '18', 'x']);
});

describe('circles', () => {
  test('cells that read one another, or themselves, are #CYCLE!, and so is what reads them', () => {
    const sheet = sheetOf(['a', 'b'], ['=B2', '=A3'], ['=A2', '=B3'], ['=A2+1', '=IFERROR(A2;0)'], ['7', '=A5']);
    calculate(sheet);
    expect(shownIn(sheet, 0)).toEqual(['a', '#CYCLE!', '#CYCLE!', '#CYCLE!', '7']);
    expect(shownIn(sheet, 1)).toEqual(['b', '#CYCLE!', '#CYCLE!', '0', '7']);
  });

  test('a cycle of 10,000 cells is reported, and ends when it is broken', () => {
    const rows = Array.from({ length: 10_000 }, (_, at) => [`=A${at === 9999 ? 2 : at + 3}`]);
    const sheet = sheetOf(['a'], ...rows);
    const calculation = calculate(sheet);
    expect(new Set(shownIn(sheet, 0))).toEqual(new Set(['a', '#CYCLE!']));
    const cells = [{ ...sheet.cellIds(0, 10_000), input: '8' }];
    calculation.follow(sheet.apply({ kind: 'set-cells', cells }).effects);
    expect(new Set(shownIn(sheet, 0))).toEqual(new Set(['a', '8']));
  });
});

test('a chain as long as the sheet is calculated in whatever order it stands', () => {
  const up = Array.from({ length: 50_000 }, (_, at) => [at === 49_999 ? '1' : `=A${at + 3}+1`]);
  const sheet = sheetOf(['a'], ...up);
  calculate(sheet);
  expect(sheet.column(0).numbers[1]).toBe(50_000);
});

test('cells that are found only while a formula runs come first', () => {
  const sheet = sheetOf(
    ['a', 'b'],
    ['=INDIRECT("B3")+1', '=A4'],
    ['x', '=B2*2'],
    ['10', '=INDIRECT("B"&5)'],
    ['', '=B4'],
  );
  calculate(sheet);
  expect(shownIn(sheet, 0)).toEqual(['a', '21', 'x', '10', '']);
  expect(shownIn(sheet, 1)).toEqual(['b', '10', '20', '#CYCLE!', '#CYCLE!']);
});

test('what hangs on the clock follows it', () => {
  const sheet = sheetOf(['a', 'b'], ['=TODAY()', '=YEAR(A2)']);
  const calculation = calculate(sheet);
  expect(shownIn(sheet, 0)[1]).toBe('2026-03-08');
  calculation.context.now = 46_500;
  calculation.tick();
  expect([shownIn(sheet, 0)[1], shownIn(sheet, 1)[1]]).toEqual(['2027-04-23', '2027']);
});

test('a reference to nothing gives nothing, in one cell as in a whole field; in a sum it counts as 0', () => {
  const rows = Array.from({ length: 40 }, (_, at) => ['', '=a', '=a+1', at === 0 ? '=A2' : '']);
  const sheet = sheetOf(['a', 'b', 'c', 'd'], ...rows);
  calculate(sheet);
  expect(sheet.column(1).valueAt(1)).toEqual({ kind: 'blank' });
  expect(sheet.column(1).valueAt(39)).toEqual({ kind: 'blank' });
  expect(sheet.column(2).valueAt(39)).toEqual({ kind: 'number', number: 1 });
  expect(sheet.column(3).valueAt(1)).toEqual({ kind: 'blank' });
});

test('labels stand for the cell of the record, or for the records of the field', () => {
  const sheet = sheetOf(
    ['Depth', 'Over mean'],
    ['2', '=Depth-AVERAGE(Depth)'],
    ['4', "='depth'>SUM('Depth')/2"],
    ['', '=Width'],
  );
  calculate(sheet);
  expect(shownIn(sheet, 1)).toEqual(['Over mean', '-1', 'TRUE', '#NAME?']);
});
