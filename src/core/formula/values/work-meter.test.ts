import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Evaluation } from '../../rules/evaluate/evaluation';
import { reportEvaluation } from '../../rules/evaluate/evaluate-report';
import type { Rule } from '../../rules/shape/rule';
import { newField } from '../../sheet/field';
import { Sheet } from '../../sheet/sheet';
import { WORK_LIMITS } from './work-meter';
import { putRules, rulesOf } from '../../rules/shape/stored-rule';

/** A sheet with these records below a header; its fields are f0, f1 and so on. */
function sheetOf(rows: readonly (readonly string[])[]): Sheet {
  const fields = rows[0]!.map((_, at) => newField(`f${at}`, `a${at}`));
  const made = new Sheet(fields);
  rows.forEach((row, at) => {
    const slot = made.appendRow({
      id: `r${at}`,
      key: `k${String(at).padStart(8, '0')}`,
      role: at === 0 ? 'header' : 'record',
    });
    row.forEach((input, column) => made.column(column).set(slot, input));
  });
  return made;
}

const shownAt = (sheet: Sheet, column: number, position: number): string =>
  sheet.column(column).entryAt(sheet.slotAt(position)).shown;

const ruleOf = (formula: string, given: Partial<Rule> = {}): Rule => ({
  id: 'r',
  name: 'r',
  on: true,
  settles: false,
  reads: { fields: ['f0'] },
  paints: 'cell',
  look: { fill: '#aaaaaa' },
  when: { kind: 'formula', formula },
  ...given,
});

/** Each asks for hundreds of millions of values, or more. */
const HOSTILE = [
  '=SUMPRODUCT([.A1:.A9999000]*[.A1:.Z1])',
  '=CORREL([.A1:.A9999000]+[.A1:.Z1];[.A1:.A9999000])',
  '=SUMPRODUCT(LEN([.A1:.A9999000]&[.A1:.Z1]))',
  '=SUMPRODUCT(-[.A1:.Z9999000])',
  '=IFERROR(SUMPRODUCT([.A1:.A9999000]*[.A1:.Z1]);1)',
  '=IFNA(MATCH(1;[.B1:.B9999000];0);1)+IFNA(MATCH(2;[.B1:.B9999000];0);1)',
  '=IFNA(VLOOKUP(1;[.B1:.C9999000];2);1)+IFNA(VLOOKUP(2;[.B1:.C9999000];2);1)',
  '=COUNTIF([.A1:.Z9999000];"x")',
  '=SUMIFS([.A1:.A9999000];[.A1:.A9999000];1;[.A1:.A9999000];2)',
  '=DSUM([.A1:.A9999000];1;[.A1:.A9999000])',
  '=SUMPRODUCT(OFFSET(A1;0;0;9999000;26))',
  '=SUMPRODUCT(INDIRECT("A1:Z9999000"))',
] as const;

test.each(HOSTILE)('%s is given up before it is made', (formula) => {
  const blanks = new Array<string>(26).fill('');
  const sheet = sheetOf([
    [...blanks, 'label'],
    [...blanks, formula],
  ]);
  const { calculation } = new Evaluation(sheet, {});
  expect(shownAt(sheet, 26, 1)).toBe('#LIMIT!');
  expect(calculation.mistakeAt(26, sheet.slotAt(1))).toMatch(/^too much work: .*10,000,000 values/);
  expect(calculation.context.work.spent).toBeLessThanOrEqual(WORK_LIMITS.formula);
});

test('what is within the limit is calculated to the last value', () => {
  const sheet = sheetOf([
    ['label', ''],
    ['1', '=SUMPRODUCT([.A2:.A1000001]+1)'],
    ['2', '=COUNTBLANK([.A1:.A9999000])'],
  ]);
  void new Evaluation(sheet, {});
  expect([1, 2].map((position) => shownAt(sheet, 1, position))).toEqual(['1000003', '9998997']);
});

test('where all formulas of a sheet are too much together, light ones go on and heavy ones say so, until there is less', () => {
  const limits = { ...WORK_LIMITS, sheet: 1000, light: 10 };
  const rows = Array.from({ length: 40 }, (_, at) => [String(at), `=A${at + 2}+1`, `=SUM(A$2:A$41)+${at}`]);
  const sheet = sheetOf([['one', 'light', 'heavy'], ...rows]);
  const evaluation = new Evaluation(sheet, {}, { limits });
  // 40 formulas of 40 cells each are 1,600 values.
  expect([1, 2].map((column) => shownAt(sheet, column, 5))).toEqual(['5', '#LIMIT!']);
  expect(evaluation.calculation.mistakeAt(2, sheet.slotAt(5))).toMatch(/together with the other formulas/);
  const cells = rows.slice(0, 20).map((_, at) => ({ row: `r${at + 1}`, field: 'f2', input: 'x' }));
  evaluation.follow(sheet.apply({ kind: 'set-cells', cells }).effects);
  expect(shownAt(sheet, 2, 40)).toBe(String((39 * 40) / 2 + 39));
});

test('a rule that is too much work is a problem that says so, and the others go on', () => {
  const limits = { ...WORK_LIMITS, rule: 1000 };
  const sheet = sheetOf([['one'], ...Array.from({ length: 50 }, (_, at) => [String(at)])]);
  const evaluation = new Evaluation(sheet, {}, { limits });
  evaluation.setRules([ruleOf('=SUM(A1:A51)>0', { id: 'heavy' }), ruleOf('=A2>40', { id: 'light' })]);
  const [heavy, light] = evaluation.activeRules;
  expect(heavy!.problem).toMatchObject({ code: 'too-much-work' });
  expect([heavy!.shownCount(), light!.shownCount()]).toEqual([0, 9]);
});

test('rules have one budget with the formulas of the sheet: the first in order have it first', () => {
  const limits = { ...WORK_LIMITS, sheet: 3000 };
  const sheet = sheetOf([['one'], ...Array.from({ length: 50 }, (_, at) => [String(at)])]);
  const evaluation = new Evaluation(sheet, {}, { limits });
  const [first, second] = [ruleOf('=SUM(A$1:A42)>0', { id: 'a' }), ruleOf('=SUM(A$1:A43)>0', { id: 'b' })];
  evaluation.setRules([first, second]);
  expect(evaluation.activeRules.map(({ problem }) => problem?.code)).toEqual([undefined, 'too-much-work']);
  evaluation.setRules([second, first]);
  expect(evaluation.activeRules.map(({ problem }) => problem?.code)).toEqual([undefined, 'too-much-work']);
  evaluation.setRules([second]);
  expect(evaluation.activeRules.map(({ problem }) => problem?.code)).toEqual([undefined]);
});

test('formulas that read one another in thousands are given up in bounded memory', () => {
  const count = 6000;
  const rows = Array.from({ length: count }, (_, at) => [`=SUM(A${at + 3}:A${count + 2})+1`]);
  const sheet = sheetOf([['chain'], ...rows, ['1']]);
  const { calculation } = new Evaluation(sheet, {}, { limits: { ...WORK_LIMITS, scheduling: 1_000_000 } });
  expect(shownAt(sheet, 0, 1)).toBe('#LIMIT!');
  expect(shownAt(sheet, 0, count)).toBe('2');
  expect(calculation.context.work.spent + calculation.context.work.scheduling.spent).toBeLessThan(4_000_000);
});

test('edits of a sheet that is near its limits give what evaluating anew gives', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 3, selector: ({ id }) => id }),
      fc.array(anyOperation, { maxLength: 12 }),
      (rules, operations) => {
        const limits = { formula: 25, rule: 60, sheet: 200, light: 3, scheduling: 100_000 };
        const sheet = makeSheet();
        sheet.apply(putRules(rules.map((one, at) => ({ id: one.id, key: `a${at}`, rule: one }))));
        const inOrder = () => rulesOf(sheet).map((stored) => stored.rule);
        const evaluate = () => {
          const made = new Evaluation(sheet, {}, { now: 46_089.5, limits });
          made.setRules(inOrder());
          return made;
        };
        const kept = evaluate();
        for (const operation of operations) {
          const { effects } = sheet.apply(operation);
          if (operation.kind === 'put-rules' || operation.kind === 'remove-rules') kept.setRules(inOrder());
          else kept.follow(effects);
        }
        const values = sheet.columns.map((column) => sheet.order.map((slot) => column.valueAt(slot)));
        const fresh = evaluate();
        expect(values).toEqual(sheet.columns.map((column) => sheet.order.map((slot) => column.valueAt(slot))));
        expect(reportEvaluation(kept)).toEqual(reportEvaluation(fresh));
      },
    ),
    { numRuns: 500 },
  );
});
