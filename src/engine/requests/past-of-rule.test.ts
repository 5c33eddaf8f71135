import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { low, OpenEngine } from '../../../test/support/open-engine';
import type { ProposalsTold } from '../../protocol/by-example';
import type { RulePast } from '../../protocol/rule-past';

let opened: OpenEngine;
beforeEach(async () => {
  opened = await OpenEngine.make();
});
afterEach(() => vi.unstubAllGlobals());

test('the past of a rule is asked of the server first, and never claimed before it is known', async () => {
  const told = (await opened.ask({ kind: 'ask-past', rule: low, past: { days: null } })) as RulePast;
  expect(told.gap).toBe('reading');
  expect(await opened.ask({ kind: 'ask-past-rows', rule: low, past: { days: null } })).toEqual([]);
});

test('proposals name the examples that are still there, and leave out what is no record', async () => {
  const cell = (row: string) => ({ row, field: 'f1' });
  const told = (await opened.ask({
    kind: 'ask-proposals',
    examples: {
      wanted: [{ look: { look: 'alarm' }, cells: [cell('r0'), cell('r1'), cell('header'), cell('gone')] }],
      unwanted: [cell('r4')],
      paints: 'cell',
    },
  })) as ProposalsTold;
  expect(told.wanted.map((cells) => cells.map(({ address, shown }) => `${address} ${shown}`))).toEqual([
    ['A2 5', 'A3 4.9'],
  ]);
  expect(told.unwanted.map(({ address }) => address)).toEqual(['A6']);
  for (const { idea } of told.proposals) {
    const count = (await opened.ask({ kind: 'ask-count', idea })) as { readonly matched: number } | null;
    expect(count?.matched ?? 0).toBeGreaterThanOrEqual(2);
  }
  expect(told.proposals.length).toBeGreaterThan(0);
});
