import { describe, expect, test } from 'vitest';
import { keysOf } from '../values/typed-keys';
import { Evaluation } from '../rules/evaluate/evaluation';
import { EXAMPLES, type ExampleName } from '../rules/suggest/examples';
import { Sheet } from '../sheet/sheet';
import { exampleSheet, withRoom } from './example-sheet';

/** 2026-03-08 as a serial date. */
const NOW = 46_089;

/** The cells that each rule of an example paints, by address, from the top. */
function painted(name: ExampleName): string[][] {
  const { fields, rows, rules } = exampleSheet(name, EXAMPLES[name], NOW);
  const made = new Sheet(fields);
  made.apply({ kind: 'insert-rows', rows });
  const evaluation = new Evaluation(made, {}, { now: NOW });
  evaluation.calculation.calculateAll();
  evaluation.setRules(rules.map(({ rule }) => rule));
  return evaluation.activeRules.map((running) =>
    made.order.flatMap((slot, position) =>
      fields.flatMap((_, column) => (running.outcomeAt(column, slot) >= 0 ? [`${'ABCD'[column]}${position + 1}`] : [])),
    ),
  );
}

describe('the examples of common jobs', () => {
  // Worked out by hand from the tables.
  test.each([
    ['limit', [['C3', 'C5']]],
    ['answers', [['B2', 'B3', 'B4', 'B5']]],
    ['two-fields', [['C3', 'C5']]],
    ['bands', [['B2', 'B3', 'B4', 'B5', 'B6']]],
    ['due', [['C2'], ['C3', 'C5']]],
    ['repeats', [['A2', 'A5']]],
    [
      'top',
      [
        ['B4', 'B7'],
        ['B3', 'B5'],
      ],
    ],
  ] as const)('%s: the rules find these cells', (name, cells) => expect(painted(name)).toEqual(cells));

  test('blank records follow the table, and none where it is long enough', () => {
    const { rows } = withRoom(exampleSheet('limit', EXAMPLES.limit, NOW), 8);
    expect(rows.map(({ cells }) => Object.keys(cells).length)).toEqual([3, 3, 3, 3, 3, 3, 0, 0]);
    expect(rows.map(({ key }) => key)).toEqual(rows.map(({ key }) => key).toSorted());
    expect(new Set(rows.map(({ id }) => id)).size).toBe(8);
    expect(withRoom(exampleSheet('limit', EXAMPLES.limit, NOW), 3).rows).toHaveLength(6);
  });

  test('each has rules for all that its words say', () => {
    for (const name of keysOf(EXAMPLES))
      expect(exampleSheet(name, EXAMPLES[name], NOW).rules.length).toBeGreaterThanOrEqual(
        EXAMPLES[name].phrases.length,
      );
  });
});
