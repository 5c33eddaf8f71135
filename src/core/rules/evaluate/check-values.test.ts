import { describe, expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { mapRuleReferences } from '../shape/map-rule-references';
import { Evaluation } from './evaluation';
import { reportEvaluation, type EvaluateReport } from './evaluate-report';
import { fieldByLabel, readRuleSet } from '../shape/read-rule-set';

/** Evaluates rules, as a file gives them, over rows whose first is the header. Today is Sunday, 2026-03-08. */
function evaluate(rows: readonly (readonly string[])[], ...rules: readonly object[]): EvaluateReport {
  const read = readRuleSet({
    format: 'auxesis-rules',
    version: 1,
    rules: rules.map((rule, at) => ({ id: `r${at}`, ...rule })),
  });
  if ('message' in read) throw new Error(read.message);
  const sheet = sheetFromTable({ rows, width: rows[0]!.length }, { header: true });
  const evaluation = new Evaluation(sheet, {}, { now: 46_089.6 });
  evaluation.setRules(read.rules.rules.map((rule) => mapRuleReferences(rule, { field: fieldByLabel(sheet) })));
  return reportEvaluation(evaluation);
}

const column = (...inputs: readonly string[]) => [['v'], ...inputs.map((input) => [input])];
const over = (when: object, more: object = {}) => ({ reads: { fields: ['v'] }, when, look: { bold: true }, ...more });
const outcomes = (rows: readonly (readonly string[])[], when: object) =>
  Object.values(evaluate(rows, over(when)).rules[0]!.outcomes ?? {});
const matched = (rows: readonly (readonly string[])[], when: object) => evaluate(rows, over(when)).rules[0]!.matched;
const problem = (rows: readonly (readonly string[])[], when: object) =>
  evaluate(rows, over(when)).rules[0]!.problem?.code;

// Check values from common practice: they have no source.
describe('common practice', () => {
  test('a bar over shares from 60 % to 100 % begins at zero: 60 % fills 0.6 of the cell', () =>
    expect(outcomes(column('60%', '100%', '80%'), { kind: 'bar' })).toEqual([
      [0, 0.6],
      [0, 1],
      [0, 0.8],
    ]));

  test('a change is (now - before) / before: up to 10 % less takes -10 % exactly and not 0, and the narrower rule must come first', () => {
    const rows = [
      ['before', 'now', 'v'],
      ...['90', '95', '100', '89'].map((now, at) => ['100', now, `=(B${at + 2}-A${at + 2})/A${at + 2}`]),
    ];
    const upTo = over({ kind: 'compare', is: 'between', to: [-0.1, -1e-9] }, { look: { fill: '#ffe3a3' } });
    const below = over({ kind: 'compare', is: '<', to: 0 }, { look: { fill: '#f7d3c8' } });
    const fills = (report: EvaluateReport) => ['C2', 'C3', 'C4', 'C5'].map((cell) => report.cells[cell]?.look.fill);
    expect(fills(evaluate(rows, upTo, below))).toEqual(['#ffe3a3', '#ffe3a3', undefined, '#f7d3c8']);
    expect(fills(evaluate(rows, below, upTo))).toEqual(['#f7d3c8', '#f7d3c8', undefined, '#f7d3c8']);
  });

  test('the greater of two fields leaves out the header, and rows where either is no number', () =>
    expect(
      matched(
        [
          ['v', 'w'],
          ['3', '2'],
          ['3', ''],
          ['x', '1'],
          ['1', '2'],
        ],
        { kind: 'compare', is: '>', to: { field: 'w' } },
      ),
    ).toEqual(['A2']));

  test('a three-colour scale as the bench proposes it has its middle colour at the median', () => {
    const stops = [
      { at: 'least', color: '#ff0000' },
      { at: { percentile: 50 }, color: '#ffffff' },
      { at: 'greatest', color: '#0000ff' },
    ];
    expect(outcomes(column('1', '2', '10'), { kind: 'scale', stops })).toEqual(['#ff0000', '#ffffff', '#0000ff']);
  });
});

describe('bars', () => {
  const rows = column('-50', '0', '100');
  test.each([
    [
      'an axis at zero',
      {},
      [
        [0, 1 / 3],
        [1 / 3, 1 / 3],
        [1 / 3, 1],
      ],
    ],
    [
      'from the other side',
      { side: 'end' },
      [
        [2 / 3, 1],
        [2 / 3, 2 / 3],
        [0, 2 / 3],
      ],
    ],
    [
      'an axis in the middle',
      { axis: 'middle' },
      [
        [0.25, 0.5],
        [0.5, 0.5],
        [0.5, 1],
      ],
    ],
    [
      'no axis',
      { axis: 'none' },
      [
        [0, 0],
        [0, 1 / 3],
        [0, 1],
      ],
    ],
    [
      'fixed ends cut what is beyond',
      { from: 0, to: 50 },
      [
        [0, 0],
        [0, 0],
        [0, 1],
      ],
    ],
  ] as const)('%s', (_, more, expected) => {
    const bars = outcomes(rows, { kind: 'bar', ...more }) as number[][];
    bars.forEach((ends, at) => ends.forEach((end, side) => expect(end).toBeCloseTo(expected[at]![side]!, 12)));
  });

  test('equal positive values fill the cell; ends that meet leave it empty', () => {
    expect(outcomes(column('5', '5'), { kind: 'bar' })).toEqual([
      [0, 1],
      [0, 1],
    ]);
    const { cells } = evaluate(column('5', '5'), over({ kind: 'bar', from: 'least', to: 'greatest' }));
    expect(cells.A2?.look.bar).toBeUndefined();
  });
});

describe('scales', () => {
  const two = [
    { at: 'least', color: '#000000' },
    { at: 'greatest', color: '#ffffff' },
  ];
  test('equal numbers have the mean of the ends, or the middle stop; with fixed stops a lone number its own place', () => {
    expect(outcomes(column('5', '5'), { kind: 'scale', stops: two, space: 'rgb' })).toEqual(['#808080', '#808080']);
    const fixed = [
      { at: 0, color: '#000000' },
      { at: 10, color: '#ffffff' },
    ];
    expect(outcomes(column('10'), { kind: 'scale', stops: fixed, space: 'rgb' })).toEqual(['#ffffff']);
  });

  test('the text is chosen for the fill that is seen, unless a rule sets it', () => {
    const scale = over({ kind: 'scale', stops: two }, { look: undefined });
    const rows = column('0', '1');
    expect(Object.values(evaluate(rows, scale).cells).map(({ look }) => look.text)).toEqual(['#ffffff', '#111111']);
    const text = over({ kind: 'compare', is: '=', to: 0 }, { look: { text: '#ff0000' } });
    expect(evaluate(rows, scale, text).cells.A2).toEqual({
      look: { fill: '#000000', text: '#ff0000' },
      from: { fill: 'r0', text: 'r1' },
    });
    const fill = over({ kind: 'compare', is: '=', to: 0 }, { look: { fill: '#ffffff' } });
    expect(evaluate(rows, fill, scale).cells.A2?.look).toEqual({ fill: '#ffffff', text: '#111111' });
  });

  test('each group has a scale of its own', () => {
    const rows = [
      ['v', 'g'],
      ['0', 'a'],
      ['10', 'A '],
      ['100', 'b'],
      ['200', 'b'],
      ['7', ''],
    ];
    expect(outcomes(rows, { kind: 'scale', stops: two, per: { group: 'g' } })).toEqual([
      '#000000',
      '#ffffff',
      '#000000',
      '#ffffff',
    ]);
  });
});

describe('answer keys', () => {
  test('accepted answers stand between bars; a blank key has no outcome', () => {
    const rows = [
      ['v', 'k'],
      ['hue', 'colour|hue'],
      ['12', '12|twelve'],
      ['Twelve', '12|twelve'],
      ['x', ''],
      ['', 'y'],
      ['', ''],
      ["'12", '12'],
      ['#N/A', 'z'],
    ];
    expect(evaluate(rows, over({ kind: 'key', expect: { field: 'k' }, looks: {} })).rules[0]!.outcomes).toEqual({
      A2: 'right',
      A3: 'right',
      A4: 'right',
      A6: 'empty',
      A8: 'wrong',
      A9: 'wrong',
    });
  });

  test('a swap of neighbours is one edit, and no letter is edited twice', () =>
    expect(
      outcomes(column('meander', 'maender', 'meanders', 'maeneder'), {
        kind: 'key',
        expect: ['meander'],
        near: 1,
        looks: {},
      }),
    ).toEqual(['right', 'near', 'near', 'wrong']));

  test('a key of another shape is a problem of the rule', () => {
    const rows = [
      ['v', 'k'],
      ['a', 'a'],
      ['b', 'c'],
    ];
    expect(problem(rows, { kind: 'key', expect: { cells: 'B2:B9' }, looks: {} })).toBe('key-shape');
    expect(outcomes(rows, { kind: 'key', expect: { cells: 'B2:B3' }, looks: {} })).toEqual(['right', 'wrong']);
  });
});

describe('positions', () => {
  test('those that fall or cannot be found are a problem of the rule, and the other rules work', () => {
    const stops = (low: unknown, high: unknown) => ({
      kind: 'scale',
      stops: [
        { at: low, color: '#000000' },
        { at: high, color: '#ffffff' },
      ],
    });
    expect(problem(column('1', '2'), stops(5, 1))).toBe('falling-positions');
    // Third rulings: a scale made before there is data stays quiet.
    expect(problem(column('x'), stops('least', 'greatest'))).toBeUndefined();
    expect(problem(column('1', '2'), stops({ cell: 'A9' }, 'greatest'))).toBe('missing-position');
    expect(
      evaluate(column('1', '2'), over(stops(5, 1)), over({ kind: 'rank', is: 'top', n: 1 })).rules[1]!.matched,
    ).toEqual(['A3']);
  });

  test('icons may be cut at a formula and at percentages, counted from 0, reversed or hidden', () => {
    const cuts = [{ at: { formula: '=AVERAGE($A$2:$A$4)' } }, { at: { percent: 90 } }];
    const rows = column('1', '2', '3');
    expect(outcomes(rows, { kind: 'icons', set: 'arrows3', cuts })).toEqual([0, 1, 2]);
    expect(outcomes(rows, { kind: 'icons', set: 'arrows3', cuts, reverse: true })).toEqual([2, 1, 0]);
    const { cells } = evaluate(rows, over({ kind: 'icons', set: 'arrows3', cuts, hide: [1], showValue: false }));
    expect([cells.A2?.look, cells.A3?.look]).toEqual([
      { icon: { set: 'arrows3', index: 0 }, hideValue: true },
      { hideValue: true },
    ]);
  });
});

test('palettes go on from the first colour again, in the order of sight or of the alphabet', () => {
  const fills = (when: object) =>
    Object.values(
      evaluate(column('b', 'a', 'B ', 'c'), over({ kind: 'category', palette: ['#111111', '#222222'], ...when })).cells,
    ).map(({ look }) => look.fill);
  expect(fills({})).toEqual(['#111111', '#222222', '#111111', '#111111']);
  expect(fills({ order: 'alphabet' })).toEqual(['#222222', '#111111', '#222222', '#111111']);
  expect(outcomes(column(' B', 'a', 'b'), { kind: 'category', palette: 'set2' })).toEqual(['B', 'a', 'B']);
});

test('whole records repeat by the combination of fields, blank parts and all', () => {
  const rows = [
    ['v', 'w'],
    ['a', '1'],
    ['A', '1'],
    ['a', ''],
    ['a', ''],
    ['', ''],
    ['', ''],
    ['#N/A', '1'],
    ['#N/A', '1'],
  ];
  expect(matched(rows, { kind: 'repeat', is: 'repeated', by: ['v', 'w'] })).toEqual(['A2', 'A3', 'A4', 'A5']);
});

test('a formula in a rule moves with the cell, from the cell it was written for', () => {
  const rows = [
    ['v', 'w'],
    ['1', '5'],
    ['6', '2'],
    ['9', '9'],
  ];
  expect(matched(rows, { kind: 'formula', formula: '=A2>B2' })).toEqual(['A3']);
  expect(matched(rows, { kind: 'formula', formula: '=A4>$B$2', at: 'A4' })).toEqual(['A3', 'A4']);
  expect(matched(rows, { kind: 'formula', formula: "=v>AVERAGE('w')" })).toEqual(['A3', 'A4']);
  expect(matched(rows, { kind: 'compare', is: '>=', to: { formula: '=B2*2' } })).toEqual(['A3']);
});
