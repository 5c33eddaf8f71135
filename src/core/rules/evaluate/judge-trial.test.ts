import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyInput, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { isFormulaInput } from '../../values/is-formula-input';
import { Evaluation } from './evaluation';
import { judgeTrial, takesTrials } from './judge-trial';
import { kindOf } from '../kinds/registry';

test('a trial comes out as the value would as the only record of a sheet', () => {
  fc.assert(
    fc.property(anyRule, anyInput, (given, input) => {
      const rule = { ...given, on: true, reads: { fields: ['f1'] }, paints: 'cell' as const };
      fc.pre(takesTrials(rule) && !isFormulaInput(input));
      const evaluation = new Evaluation(makeSheet([input]), {}, { now: 46_089.5 });
      evaluation.setRules([rule]);
      const running = evaluation.activeRules[0]!;
      const slot = evaluation.sheet.slotAt(1);
      const outcome = running.outcomeAt(0, slot);
      const expected =
        kindOf(rule.when).outcomes === 'match' ? outcome >= 0 : outcome < 0 ? null : running.outcomeTold(0, slot);
      expect(judgeTrial(rule, input, evaluation.world)).toEqual(expected);
    }),
    { numRuns: 500 },
  );
});

test.each([
  [{ kind: 'compare', is: '<', to: 5 }, true],
  [{ kind: 'compare', is: '<', to: { cell: 'F4' } }, false],
  [{ kind: 'compare', is: 'between', to: [1, { formula: '=$A$1' }] }, false],
  [{ kind: 'key', expect: ['oxygen'], looks: {} }, true],
  [{ kind: 'key', expect: { field: 'f2' }, looks: {} }, false],
  [{ kind: 'average', is: 'above' }, false],
  [{ kind: 'date', is: 'past' }, true],
] as const)('%j takes trials: %s', (when, takes) => expect(takesTrials({ when })).toBe(takes));
