import { describe, expect, test } from 'vitest';
import { looksById, sheetLooks } from '../core/sheet/sheet-looks';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { Sheet } from '../core/sheet/sheet';
import { changeSchema } from '../protocol/change-schema';
import { aeratorPlanner } from './aerator-planner';
import { catchmentTree } from './catchment-tree';
import { riverflyCheck } from './riverfly-check';
import { samplingKit } from './sampling-kit';
import { volunteerHours } from './volunteer-hours';

const TODAY = 46_089;
const SHEETS = [volunteerHours(), aeratorPlanner(), catchmentTree(), riverflyCheck(), samplingKit(TODAY)];

function atWork({ fields, rows, rules, parts = [] }: (typeof SHEETS)[number]): Evaluation {
  const opened = new Sheet(fields);
  opened.apply({ kind: 'insert-rows', rows });
  opened.apply({ kind: 'put-parts', parts });
  const evaluation = new Evaluation(opened, looksById(sheetLooks([], 'light')), { now: TODAY + 0.5 });
  evaluation.setRules(rules.map(({ rule }) => rule));
  return evaluation;
}

describe.each(SHEETS.map((sheet) => [sheet.name, sheet] as const))('%s', (_, contents) => {
  const evaluation = atWork(contents);

  test('is what a client could have sent', () => {
    const { rows, rules, parts = [] } = contents;
    const operations = [
      { kind: 'insert-rows', rows },
      { kind: 'put-rules', rules },
      ...(parts.length ? [{ kind: 'put-parts', parts }] : []),
    ];
    expect(changeSchema.validate({ id: 'demo', operations }, { convert: false }).error).toBeUndefined();
  });

  test.each(evaluation.activeRules.map((running) => [running.rule.name, running] as const))(
    '%s works, and picks out something',
    (__, running) => {
      expect(running.problem).toBeNull();
      expect(running.shownCount()).toBeGreaterThan(0);
    },
  );
});

test('of the planner’s three rules every cell meets exactly one, also under other limits', () => {
  const evaluation = atWork(aeratorPlanner());
  const { sheet } = evaluation;
  for (const [night, pump] of [
    ['6', '14'],
    ['2', '3.5'],
  ] as const) {
    for (const [row, input] of [
      ['r2', night],
      ['r3', pump],
    ] as const)
      evaluation.follow(sheet.apply({ kind: 'set-cells', cells: [{ row, field: 't0', input }] }).effects);
    for (const { column, slots } of evaluation.activeRules[0]!.read)
      slots.forEach((slot) =>
        expect(evaluation.activeRules.filter((running) => running.outcomeAt(column, slot) >= 0)).toHaveLength(1),
      );
  }
});
