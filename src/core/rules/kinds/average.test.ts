import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import type { Rule } from '../shape/rule';
import type { AverageWhen } from './average';

const number = fc.integer({ min: 0, max: 200 }).map((tenths) => String(tenths / 10));
const input = fc.oneof({ weight: 8, arbitrary: number }, fc.constantFrom('', 'x', '1e6', '10', '10', '-3'));
const when = fc.record<AverageWhen>({
  kind: fc.constant('average' as const),
  is: fc.constantFrom('above' as const, 'below' as const, 'at-or-above' as const, 'at-or-below' as const),
  deviations: fc.constantFrom(0, 0.5, 1.5),
  spread: fc.constantFrom('sample' as const, 'population' as const),
});

// The law of all kinds, with so many numbers and edits that a threshold goes back and forth among them.
test('after many edits an average gives what it gives from scratch', () => {
  fc.assert(
    fc.property(
      fc.record({
        rows: fc.array(fc.tuple(input, input), { minLength: 40, maxLength: 120 }),
        edits: fc.array(fc.array(fc.tuple(fc.nat(), fc.boolean(), input), { minLength: 1, maxLength: 3 }), {
          minLength: 10,
          maxLength: 40,
        }),
        when,
        isOneField: fc.boolean(),
      }),
      ({ rows, edits, when: asked, isOneField }) => {
        const sheet = sheetFromTable({ rows: [['a', 'b'], ...rows], width: 2 }, { header: true });
        const fields = sheet.fields.map(({ id }) => id);
        const rule: Rule = {
          id: 'r',
          name: 'R',
          on: true,
          settles: false,
          reads: { fields: isOneField ? fields.slice(0, 1) : fields },
          when: asked,
          paints: 'cell',
          look: { bold: true },
        };
        const outcomes = (evaluation: Evaluation) =>
          rows.map((_, at) => [0, 1].map((column) => evaluation.activeRules[0]?.outcomeAt(column, at + 1)));
        const fresh = () => {
          const evaluation = new Evaluation(sheet, {});
          evaluation.setRules([{ ...rule }]);
          return evaluation;
        };
        const kept = fresh();
        for (const cells of edits) {
          const { effects } = sheet.apply({
            kind: 'set-cells',
            cells: cells.map(([at, isFirst, text]) => ({
              row: sheet.rowId(1 + (at % rows.length)),
              field: fields[isFirst ? 0 : 1]!,
              input: text,
            })),
          });
          kept.follow(effects);
          expect(outcomes(kept)).toEqual(outcomes(fresh()));
        }
      },
    ),
    { numRuns: 60 },
  );
});
