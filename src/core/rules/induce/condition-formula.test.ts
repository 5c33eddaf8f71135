import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { RunningRule } from '../evaluate/running-rule';
import type { When } from '../kinds/registry';
import { combinedWhen, type ConditionPart } from './combine-conditions';
import { conditionFormula } from './condition-formula';

const INPUTS = ['', '3', '4', '4.5', '-7', 'North', 'north', 'Northwest', 'South', '10 %', '"said"', 'a*b'];

const anyWhen: fc.Arbitrary<When> = fc.oneof(
  fc.record({
    kind: fc.constant('compare' as const),
    is: fc.constantFrom('<' as const, '<=' as const, '>' as const, '>=' as const, '=' as const, '!=' as const),
    to: fc.constantFrom(-7, 3.5, 4),
  }),
  fc.record({
    kind: fc.constant('compare' as const),
    is: fc.constantFrom('=' as const, '!=' as const),
    to: fc.constantFrom('North', 'a*b', '"said"'),
  }),
  fc.record({
    kind: fc.constant('text' as const),
    is: fc.constantFrom('contains' as const, 'starts' as const),
    any: fc.constantFrom(['nor'], ['west'], ['*b'], ['"s']),
  }),
  fc.record({ kind: fc.constant('state' as const), is: fc.constantFrom('blank' as const, 'filled' as const) }),
);

// Conditions and formulas are evaluated by different parts of the core: each is the other's reference.
test('a formula of two conditions holds where both of them do, or one', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...INPUTS), fc.constantFrom(...INPUTS)), { minLength: 1, maxLength: 12 }),
      fc.tuple(anyWhen, anyWhen),
      fc.constantFrom('and' as const, 'or' as const),
      (records, [left, right], how) => {
        for (const when of [left, right]) fc.pre(conditionFormula(when, 'A1') !== undefined);
        const rows = [['One', 'Other'], ...records.map(([one, other]) => [one, other])];
        const sheet = sheetFromTable({ rows, width: 2 }, { header: true });
        const { world } = new Evaluation(sheet, {});
        const outcomes = (when: When, column: number) => {
          const reads = { fields: [sheet.field(column).id] };
          const rule = { id: 'a', name: 'A', on: true, settles: false, paints: 'cell', look: {}, reads, when } as const;
          const running = new RunningRule(rule, world);
          expect(running.problem).toBeNull();
          return records.map((_, at) => running.outcomeAt(column, at + 1) >= 0);
        };
        const parts: [ConditionPart, ConditionPart] = [
          { column: 0, when: left },
          { column: 1, when: right },
        ];
        const combined = combinedWhen({ how, parts, bits: 0 }, { column: 0, position: 1 });
        const [ones, others] = [outcomes(left, 0), outcomes(right, 1)];
        const expected = ones.map((one, at) => (how === 'and' ? one && others[at]! : one || others[at]!));
        expect(outcomes(combined, 0)).toEqual(expected);
      },
    ),
    { numRuns: 500 },
  );
});
