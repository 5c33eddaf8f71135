import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Advice } from '../../core/rules/advice/advice';
import { adviceKey } from '../../core/rules/advice/advice-key';
import type { RuleProfile } from '../../core/rules/explain/profile-rule';
import type { Rule } from '../../core/rules/shape/rule';
import { low, OpenEngine } from '../../../test/support/open-engine';
import { putRules } from '../../core/rules/shape/stored-rule';

let opened: OpenEngine;
beforeEach(async () => {
  opened = await OpenEngine.make();
});
afterEach(() => vi.unstubAllGlobals());

describe('what the bench asks', () => {
  const rule = (more: Partial<Rule>): Rule => ({ ...low, ...more });

  test('advice, but for what somebody has dismissed', async () => {
    const wide = rule({ id: 'wide', name: 'Wide', when: { kind: 'compare', is: '<', to: 9 } });
    await opened.ask({ kind: 'change', operations: [putRules([{ id: 'wide', key: 'Zz', rule: wide }])] });
    const advice = (await opened.ask({ kind: 'ask-advice' })) as readonly Advice[];
    const hidden = advice.find(({ code }) => code === 'never-seen')!;
    expect(hidden).toMatchObject({ rules: ['low', 'wide'], cells: ['A3'] });
    await opened.ask({
      kind: 'change',
      operations: [{ kind: 'put-parts', parts: [{ id: adviceKey(hidden), kind: 'dismissal', reason: 'on purpose' }] }],
    });
    expect(await opened.ask({ kind: 'ask-advice' })).toEqual(advice.filter((each) => each !== hidden));
    await vi.waitFor(() => expect(opened.server.received).toHaveLength(2));
  });

  test('what a rule makes of values by themselves, of either number of outcomes', async () => {
    expect(await opened.ask({ kind: 'ask-trials', rule: low, values: [4.9, 5, null, 'x'] })).toEqual([
      true,
      false,
      false,
      false,
    ]);
    const bands = rule({ when: { kind: 'bands', cuts: [5, 7], looks: [null, null, null] } });
    expect(await opened.ask({ kind: 'ask-trials', rule: bands, values: [4.9, 5, 8, ''] })).toEqual([0, 1, 2, null]);
  });

  test('how a formula reads at the first cells, the last and the selected one, and what it gives', async () => {
    await opened.ask({
      kind: 'draft',
      rule: { id: 'low', key: 'a0', rule: rule({ when: { kind: 'formula', formula: '=A2*2>$A$2' } }) },
    });
    expect(await opened.ask({ kind: 'ask-readings', rule: 'low', at: { column: 0, position: 5 } })).toEqual([
      { address: 'A2', formula: '=A2*2>$A$2', gives: 'TRUE' },
      { address: 'A3', formula: '=A3*2>$A$2', gives: 'TRUE' },
      { address: 'A11', formula: '=A11*2>$A$2', gives: 'TRUE' },
      { address: 'A6', formula: '=A6*2>$A$2', gives: 'TRUE' },
    ]);
    await opened.ask({ kind: 'draft', rule: null });
    expect(await opened.ask({ kind: 'ask-readings', rule: 'low', at: { column: 0, position: 5 } })).toEqual([]);
  });

  test('the values are read anew once a cell has changed', async () => {
    const profile = async () =>
      ((await opened.ask({ kind: 'ask-profile', rule: 'low', reads: low.reads, thresholds: [] })) as RuleProfile)
        .profile;
    const before = await profile();
    expect(await profile()).toEqual(before);
    await opened.ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: '600' });
    expect(await profile()).toMatchObject({ numbers: before.numbers, greatest: 46_089 });
    await opened.ask({ kind: 'enter', cell: { column: 0, position: 3 }, input: '2' });
    expect(await profile()).toMatchObject({ numbers: before.numbers + 1, others: before.others - 1 });
  });

  test('a saved look that is changed is painted otherwise wherever it is used', async () => {
    await opened.ask({
      kind: 'change',
      operations: [
        { kind: 'put-parts', parts: [{ id: 'look-alarm', kind: 'look', name: 'Loud', look: { fill: '#123456' } }] },
      ],
    });
    expect((await opened.frame()).looks).toMatchObject([{ id: 'look-alarm', name: 'Loud' }]);
    const { lookTable } = await opened.window();
    expect(lookTable.map(({ properties }) => properties.fill)).toContain('#123456');
    await opened.ask({ kind: 'undo' });
    expect((await opened.window()).lookTable.map(({ properties }) => properties.fill)).toContain('#f7d3c8');
  });
});
