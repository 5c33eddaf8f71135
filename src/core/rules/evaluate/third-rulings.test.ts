import { describe, expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from './evaluation';
import { reportEvaluation } from './evaluate-report';
import type { When } from '../kinds/registry';
import { readRuleSet } from '../shape/read-rule-set';
import type { Rule } from '../shape/rule';
import { traceCell } from '../explain/trace';

// Cases that an independent evaluation of thousands of random tables found ambiguous, and their intended meaning.

const evaluate = (rows: readonly (readonly string[])[], when: When, reads = 'A2:A9') => {
  const sheet = sheetFromTable({ rows, width: rows[0]!.length }, { header: true });
  const rule: Rule = {
    id: 'r',
    name: 'r',
    on: true,
    settles: false,
    reads: { cells: reads },
    when,
    paints: 'cell',
    look: { bold: true },
  };
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([rule]);
  return { evaluation, sheet, report: reportEvaluation(evaluation).rules[0]! };
};

describe('arithmetic on texts', () => {
  const rows = [
    ['here', 'there'],
    ['mill', 'mill'],
    ['4', '3'],
    ['2026-03-08', '2026-03-08'],
    ['TRUE', 'TRUE'],
  ];
  const field = (sheet: ReturnType<typeof evaluate>['sheet']) => sheet.field(1).id;

  test.each(['=', '!=', '<', '<=', '>', '>='] as const)('“%s” a multiple of a text never matches', (is) => {
    const { sheet } = evaluate(rows, { kind: 'state', is: 'blank' });
    const { report } = evaluate(rows, { kind: 'compare', is, to: { field: field(sheet), times: 1 } });
    expect(report.matched.filter((cell) => cell === 'A2' || cell === 'A5')).toEqual([]);
    expect(report.matched.includes('A3')).toBe(is === '!=' || is === '>' || is === '>=');
  });

  test('the trace says that it is not comparable; without arithmetic texts meet texts', () => {
    const { sheet } = evaluate(rows, { kind: 'state', is: 'blank' });
    const scaled = evaluate(rows, { kind: 'compare', is: '=', to: { field: field(sheet), plus: 1 } });
    expect(JSON.stringify(traceCell(scaled.evaluation, {}, { column: 0, slot: scaled.sheet.slotAt(1) }))).toContain(
      'not comparable',
    );
    expect(evaluate(rows, { kind: 'compare', is: '=', to: { field: field(sheet) } }).report.matched).toEqual([
      'A2',
      'A4',
      'A5',
    ]);
  });
});

describe('positions over no numbers', () => {
  const stops = (...at: readonly unknown[]) =>
    at.map((one, index) => ({ at: one, color: index ? '#ffffff' : '#000000' })) as never;

  test.each([
    ['a scale', { kind: 'scale', stops: stops('least', 'greatest') }],
    ['a scale by percentiles', { kind: 'scale', stops: stops({ percentile: 10 }, { percent: 90 }) }],
    ['icons', { kind: 'icons', set: 'stars3', cuts: [{ at: { percentile: 25 } }, { at: { percent: 75 } }] }],
    ['a bar', { kind: 'bar', from: 'least', to: 'greatest' }],
  ] as const)('%s that is made before its data stays quiet, and works once there is some', (_, when) => {
    const { evaluation, sheet, report } = evaluate([['n'], ['x'], ['']], when as When);
    expect(report).toMatchObject({ problem: null, matched: [] });
    const cells = [
      { row: sheet.rowId(sheet.slotAt(1)), field: sheet.field(0).id, input: '3' },
      { row: sheet.rowId(sheet.slotAt(2)), field: sheet.field(0).id, input: '5' },
    ];
    evaluation.follow(sheet.apply({ kind: 'set-cells', cells }).effects);
    expect(reportEvaluation(evaluation).rules[0]!.matched).toEqual(['A2', 'A3']);
  });

  test('a cell that holds no number is a position that cannot be found all the same', () => {
    const { report } = evaluate([['n'], ['1'], ['2']], { kind: 'scale', stops: stops({ cell: 'A9' }, 'greatest') });
    expect(report.problem).toMatchObject({ code: 'missing-position' });
  });
});

test('the text of a number has no space before its percent or currency sign', () => {
  const rows = [['n'], ['12.5 %'], ['12.5%'], ['5 €'], ['12.5 % off']];
  const meets = (word: string) => evaluate(rows, { kind: 'text', is: 'equals', any: [word] }).report.matched;
  expect(meets('12.5%')).toEqual(['A2', 'A3']);
  expect(meets('5€')).toEqual(['A4']);
  expect(meets('12.5 % off')).toEqual(['A5']);
});

test.each([
  ['B:B', ['B2', 'B4']],
  ['$A:b', ['B2', 'B4', 'A3']],
  ['2:3', ['B2', 'A3']],
  ['4:4 2:2', ['B2', 'B4']],
])('%s reads whole columns or rows', (cells, matched) => {
  const rows = [
    ['n', 'm'],
    ['7', '2'],
    ['1', '9'],
    ['8', '3'],
  ];
  expect(evaluate(rows, { kind: 'compare', is: '<', to: 5 }, cells).report.matched.toSorted()).toEqual(
    matched.toSorted(),
  );
});

test('ranges over the same cells again and again are too much work at some point, and reported as that', () => {
  const rows = [['n'], ...Array.from({ length: 400 }, () => ['1'])];
  const { problem } = evaluate(
    rows,
    { kind: 'state', is: 'blank' },
    Array.from({ length: 600_000 }, () => 'A:A').join(' '),
  ).report;
  expect(problem).toMatchObject({ code: 'too-much-work' });
});

test.each(['B2:4711!', 'B2:', ':B2', 'B2:C3:D4', 'B2;C3', 'B0', 'B', '2', 'B:2', 'B:B:B', '0:1'])(
  '“%s” is no range',
  (cells) => {
    const rule = {
      id: 'a',
      name: 'a',
      reads: { cells },
      when: { kind: 'state', is: 'blank' },
      paints: 'cell',
      look: { bold: true },
    };
    expect(readRuleSet(undefined)).toMatchObject({ message: expect.stringContaining('required') as string });
    expect(readRuleSet({ format: 'auxesis-rules', version: 1, rules: [rule] })).toMatchObject({
      message: expect.stringContaining('ranges') as string,
    });
  },
);
