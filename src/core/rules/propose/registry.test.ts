import Joi from 'joi';
import { describe, expect, test } from 'vitest';
import { Evaluation } from '../evaluate/evaluation';
import { kindOf, KIND_NAMES, KINDS, type When } from '../kinds/registry';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evidence } from './evidence';
import { candidatesOf } from './registry';

describe.each(KIND_NAMES)('%s', (name) => {
  const kind = kindOf({ kind: name } as When);

  // Each example of the kind is a set of cells that somebody points at.
  test('proposes only conditions that fit the examples it is given', () => {
    for (const { when, inputs, outcomes } of kind.examples) {
      const sheet = sheetFromTable(
        { rows: [['Value'], ...inputs.map((input) => [input])], width: 1 },
        { header: true },
      );
      const looks = [...new Set(outcomes.filter((outcome) => outcome >= 0))].map((outcome) => ({ outcome }));
      const cells = (wanted: number) =>
        outcomes.flatMap((outcome, at) => (outcome === wanted ? [{ column: 0, slot: at + 1 }] : []));
      const wanted = looks.map(({ outcome }) => ({ look: { bold: true }, cells: cells(outcome) }));
      const isSeveral = KINDS[name].outcomes === 'several';
      if (wanted.length === 0 || isSeveral !== wanted.length > 1) continue;
      const read = [{ column: 0, slots: sheet.slotsWithRoles(['record']) }];
      const evidence = new Evidence({ sheet, read, wanted, unwanted: cells(-1), now: NaN, isPointed: true });
      for (const proposed of candidatesOf([name], evidence)) {
        expect(KINDS[name].schema(Joi).validate(proposed, { convert: false }).error).toBeUndefined();
        if (isSeveral || proposed.kind === 'repeat') continue;
        const evaluation = new Evaluation(sheet, {});
        const rule = {
          id: 'rule',
          name: 'Rule',
          on: true,
          settles: false,
          paints: 'cell',
          look: { bold: true },
        } as const;
        evaluation.setRules([{ ...rule, reads: { fields: [sheet.field(0).id] }, when: proposed }]);
        const shows = inputs.map((_, at) => evaluation.activeRules[0]!.outcomeAt(0, at + 1) >= 0);
        expect({ when, proposed, shows }).toEqual({ when, proposed, shows: outcomes.map((outcome) => outcome >= 0) });
      }
    }
  });
});
