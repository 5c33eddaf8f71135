import { expect, test } from 'vitest';
import { changeSchema } from '../protocol/change-schema';
import type { Operation } from '../core/sheet/change';
import { Sheet } from '../core/sheet/sheet';
import { RuleWatch } from '../core/findings/rule-watch';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { rulesOf } from '../core/rules/shape/stored-rule';
import { looksById, sheetLooks } from '../core/sheet/sheet-looks';
import { hoursPast, kitPast, stationPast } from './demo-past';
import { samplingKit } from './sampling-kit';
import { stationReadings } from './station-readings';
import { volunteerHours } from './volunteer-hours';

const TODAY = 46_089;
const MOMENT = { today: TODAY, nowMs: (TODAY - 25_569 + 0.5) * 86_400_000 };
const SHEETS = [
  stationPast(stationReadings({ today: TODAY }), MOMENT),
  kitPast(samplingKit(TODAY), MOMENT),
  hoursPast(volunteerHours(), MOMENT),
];

function opened({ fields, rows, rules }: (typeof SHEETS)[number]): Sheet {
  const filled = new Sheet(fields);
  filled.apply({ kind: 'insert-rows', rows });
  filled.apply({ kind: 'put-rules', rules });
  return filled;
}

const contentsOf = (sheet: Sheet) => ({
  cells: sheet.order.map((slot) => [sheet.rowId(slot), sheet.columns.map((column) => column.inputAt(slot))]),
  rules: rulesOf(sheet),
});

test.each(SHEETS.map((sheet) => [sheet.name, sheet] as const))(
  'the past of %s leads to what it is, and findings with it',
  (_, contents) => {
    const changes = contents.changes ?? [];
    expect(changes.length).toBeGreaterThan(3);
    const times = [contents.createdAt ?? 0, ...changes.map(({ at }) => at), MOMENT.nowMs];
    expect(times).toEqual(times.toSorted((one, other) => one - other));

    const sheet = opened(contents);
    const is = contentsOf(sheet);
    for (const { inverse } of changes.toReversed())
      for (const operation of inverse) sheet.apply(operation as Operation);
    expect(contentsOf(sheet)).not.toEqual(is);
    const evaluation = new Evaluation(sheet, looksById(sheetLooks([], 'light')), { now: TODAY + 0.5 });
    evaluation.setRules(rulesOf(sheet).map(({ rule }) => rule));
    const watch = new RuleWatch(evaluation);
    let found = 0;
    for (const { id, operations } of changes) {
      expect(changeSchema.validate({ id, operations }, { convert: false }).error).toBeUndefined();
      for (const operation of operations as readonly Operation[]) {
        evaluation.follow(sheet.apply(operation).effects);
        if (operation.kind === 'put-rules') evaluation.setRules(rulesOf(sheet).map(({ rule }) => rule));
      }
      found += watch.crossings(0).length;
    }
    expect(contentsOf(sheet)).toEqual(is);
    expect(found).toBeGreaterThan(0);
  },
);
