import { describe, expect, test } from 'vitest';
import { looksById, sheetLooks } from '../core/sheet/sheet-looks';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { Sheet } from '../core/sheet/sheet';
import { changeSchema } from '../protocol/change-schema';
import { stationReadings } from './station-readings';
import { putRules } from '../core/rules/shape/stored-rule';

const TODAY = 46_089;
const contents = stationReadings({ today: TODAY });

test('the same day and seed give the same sheet, another seed another', () => {
  expect(stationReadings({ today: TODAY })).toEqual(contents);
  expect(stationReadings({ today: TODAY, seed: 1 }).rows).not.toEqual(contents.rows);
});

test('it is what a client could have sent', () => {
  const change = {
    id: 'demo',
    operations: [{ kind: 'insert-rows', rows: contents.rows }, putRules(contents.rules)],
  };
  expect(changeSchema.validate(change, { convert: false }).error).toBeUndefined();
});

describe('six rules that make sense', () => {
  const opened = new Sheet(contents.fields);
  for (const row of contents.rows) opened.apply({ kind: 'insert-rows', rows: [row] });
  const evaluation = new Evaluation(opened, looksById(sheetLooks([], 'light')));
  evaluation.setRules(contents.rules.map(({ rule }) => rule));

  test.each(evaluation.activeRules.map((running) => [running.rule.name, running] as const))(
    '%s works, and picks out some records but not most',
    (_, running) => {
      expect(running.problem).toBeNull();
      const painted = running
        .outcomeCounts()
        .reduce((sum, count, outcome) => sum + (running.look(outcome) ? count : 0), 0);
      expect(painted).toBeGreaterThan(4);
      expect(painted).toBeLessThan(running.readCount() / 3);
    },
  );

  test('trials that are kept with a rule hold', () => {
    for (const { rule } of evaluation.activeRules)
      for (const { value, expect: expected } of rule.trials ?? []) {
        const tried = new Sheet(contents.fields);
        const [field] = 'fields' in rule.reads ? rule.reads.fields : [];
        tried.apply({
          kind: 'insert-rows',
          rows: [{ id: 'r', key: 'a0', role: 'record', cells: { [field!]: String(value) } }],
        });
        const trial = new Evaluation(tried, {});
        trial.setRules([rule]);
        expect(trial.activeRules[0]!.outcomeAt(tried.findColumn(field!)!, 0) >= 0).toBe(expected);
      }
  });

  test('there are gaps and sensor errors, which no comparison takes', () => {
    const oxygen = opened.findColumn('oxygen')!;
    const kinds = new Set(opened.order.map((slot) => opened.column(oxygen).valueAt(slot).kind));
    expect(kinds).toEqual(new Set(['text', 'number', 'blank']));
  });
});
