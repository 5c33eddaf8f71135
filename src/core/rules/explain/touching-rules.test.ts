import { holdsCell } from '../../sheet/address';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Evaluation } from '../evaluate/evaluation';
import { touchingRules } from './touching-rules';

const area = fc.tuple(fc.nat(2), fc.nat(2), fc.nat(12), fc.nat(12)).map(([a, b, c, d]) => ({
  left: Math.min(a, b),
  right: Math.max(a, b),
  top: Math.min(c, d),
  bottom: Math.max(c, d),
}));

test('a rule touches an area where it reads or paints one of its cells, looked at cell by cell', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 4, selector: ({ id }) => id }),
      fc.array(area, { minLength: 1, maxLength: 3 }),
      (rules, areas) => {
        const sheet = makeSheet();
        const evaluation = new Evaluation(sheet, {}, { now: 46_089.5 });
        evaluation.setRules(rules);
        const expected = evaluation.activeRules.filter(({ rule, read, painted }) =>
          sheet.order.some((slot, position) =>
            sheet.fields.some((_, column) => {
              const isSelected = areas.some((each) => holdsCell(each, column, position));
              const isRead = read.some((member) => member.column === column && member.slots.has(slot));
              const isPainted =
                rule.paints !== 'cell' && painted.has(column) && read.some((member) => member.slots.has(slot));
              return isSelected && (isRead || isPainted);
            }),
          ),
        );
        expect(touchingRules(evaluation, areas)).toEqual(expected.map(({ rule }) => rule.id));
      },
    ),
    { numRuns: 500 },
  );
});
