import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { RuleProfile } from '../../src/core/rules/profile-rule';
import type { Rule } from '../../src/core/rules/rule';
import { Engine } from '../../src/engine/engine';
import type { Event, LegendEntry, Request, SheetFrame, SheetWindow } from '../../src/protocol/engine-messages';
import { makeSheet } from '../arbitrary-sheet';
import { FakeServer } from './fake-server';

const low: Rule = {
  id: 'low',
  name: 'Low',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { look: 'alarm' },
};

let server: FakeServer;
let engine: Engine;
let told: Event[];

/** Lets all that waits be done, then gives the last event of a kind. */
async function last<K extends Event['kind']>(kind: K): Promise<Extract<Event, { kind: K }>> {
  await new Promise((resolve) => setTimeout(resolve, 5));
  return told.findLast((event) => event.kind === kind) as Extract<Event, { kind: K }>;
}
const ask = (request: Request) => engine.answer(request);
const frame = async (): Promise<SheetFrame> => (await last('frame-changed')).frame;
const window = async (): Promise<SheetWindow> => (await last('window-resolved')).window;
const legend = async (): Promise<readonly LegendEntry[]> => (await last('rules-counted')).legend;
const textAt = async (column: number, position: number) => {
  const { area, texts } = await window();
  return texts[(position - area.top) * (area.right - area.left + 1) + column - area.left];
};
const rulesAt = async (column: number, position: number) => {
  const { area, looks, lookTable } = await window();
  return lookTable[looks[(position - area.top) * (area.right - area.left + 1) + column - area.left]!]!.rules;
};

beforeEach(async () => {
  // Rows 1 to 10 of field One: 5, 4.9, x, blank, 7, 70%, done, a date, -5, 6.
  const sheet = makeSheet();
  sheet.apply({ kind: 'put-rules', rules: [{ id: 'low', key: 'a0', rule: low }] });
  server = new FakeServer(sheet);
  told = [];
  engine = new Engine((events) => told.push(...events));
  await ask({ kind: 'open', sheet: 'test', theme: 'light' });
  await ask({ kind: 'look-at', area: { left: 0, top: 1, right: 2, bottom: 99 } });
});
afterEach(() => vi.unstubAllGlobals());

test('a sheet that is opened is told: its frame, what is in view, and what its rules paint', async () => {
  expect(await frame()).toMatchObject({
    name: 'Test',
    rowCount: 11,
    frozenRows: 1,
    fields: [{ label: 'One' }, { label: 'Two' }, { label: 'Three' }],
  });
  expect((await window()).area).toEqual({ left: 0, top: 1, right: 2, bottom: 10 });
  expect((await last('window-resolved')).frozen.texts).toEqual(['One', 'Two', 'Three']);
  expect(await legend()).toMatchObject([{ id: 'low', read: 10, matched: 3, sentence: 'One is below 5', isDraft: false, problem: null }]);
  expect(await rulesAt(0, 2)).toEqual(['Low']);
  expect(await rulesAt(0, 1)).toEqual([]);
});

test('a sheet that does not exist is told in words', async () => {
  await expect(ask({ kind: 'open', sheet: 'gone', theme: 'light' })).rejects.toThrow();
  expect((await last('sheet-failed')).message).toContain('no such sheet');
});

describe('an edit', () => {
  test('is seen at once, counted, and sent', async () => {
    await ask({ kind: 'enter', column: 0, position: 1, input: '4' });
    expect(await textAt(0, 1)).toBe('4');
    expect(await rulesAt(0, 1)).toEqual(['Low']);
    expect((await legend())[0]!.matched).toBe(4);
    expect(server.received.map(({ operations }) => operations)).toEqual([[{ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input: '4' }] }]]);
  });

  test('that changes nothing is not sent', async () => {
    await ask({ kind: 'enter', column: 0, position: 1, input: '5' });
    await ask({ kind: 'enter', column: 9, position: 1, input: '5' });
    expect((await last('window-resolved')).window).toBeDefined();
    expect(server.received).toEqual([]);
  });

  test('that is refused is taken back, told, and cannot be undone', async () => {
    server.answers.push(409);
    await ask({ kind: 'enter', column: 0, position: 1, input: '4' });
    expect((await last('change-refused')).message).toBe('answered with 409');
    expect(await textAt(0, 1)).toBe('5');
    expect(await last('undo-changed')).toMatchObject({ undo: 0, redo: 0 });
  });

  test('is undone and done again as new changes', async () => {
    await ask({ kind: 'clear', area: { left: 0, top: 1, right: 1, bottom: 3 } });
    expect([await textAt(0, 1), await textAt(1, 3)]).toEqual(['', '']);
    await ask({ kind: 'undo' });
    expect([await textAt(0, 1), await textAt(0, 3)]).toEqual(['5', 'x']);
    await ask({ kind: 'redo' });
    expect(await textAt(0, 1)).toBe('');
    expect(await last('undo-changed')).toMatchObject({ undo: 1, redo: 0 });
    expect(server.received).toHaveLength(3);
  });
});

test('somebody else’s change goes in beneath what has not come back yet', async () => {
  server.answers.push('down');
  await ask({ kind: 'enter', column: 0, position: 1, input: 'mine' });
  const theirs = (input: string, row: string) => ({ kind: 'set-cells' as const, cells: [{ row, field: 'f1', input }] });
  server.elsewhere(theirs('theirs', 'r0'), theirs('also theirs', 'r1'));
  expect([await textAt(0, 1), await textAt(0, 2)]).toEqual(['mine', 'also theirs']);
});

describe('rows', () => {
  test('a record is added at the end, and read by the rules at once', async () => {
    expect(await ask({ kind: 'add-record' })).toEqual({ position: 11 });
    await ask({ kind: 'enter', column: 0, position: 11, input: '1' });
    expect(await legend()).toMatchObject([{ read: 11, matched: 4 }]);
    expect((await frame()).rowCount).toBe(12);
  });

  test('rows are removed and come back where they were', async () => {
    await ask({ kind: 'remove-rows', top: 2, bottom: 3 });
    expect([await textAt(0, 2), (await legend())[0]!.matched]).toEqual(['', 2]);
    await ask({ kind: 'undo' });
    expect([await textAt(0, 2), await textAt(0, 3), (await legend())[0]!.matched]).toEqual(['4.9', 'x', 3]);
  });
});

describe('a rule on the bench', () => {
  const draft = {
    id: 'new',
    key: 'Zz',
    rule: { ...low, id: 'new', name: 'New', when: { kind: 'compare' as const, is: '>' as const, to: 5 }, look: { look: 'cool' } },
  };

  test('is at work here and nowhere else until it is kept', async () => {
    await ask({ kind: 'draft', rule: draft });
    expect((await legend()).map(({ rule, matched, isDraft }) => [rule.name, matched, isDraft])).toEqual([
      ['New', 2, true],
      ['Low', 3, false],
    ]);
    expect(await rulesAt(0, 5)).toEqual(['New']);
    await ask({ kind: 'draft', rule: null });
    expect(await rulesAt(0, 5)).toEqual([]);
    expect(server.received).toEqual([]);
  });

  test('stands in the place of the rule it changes', async () => {
    await ask({ kind: 'draft', rule: { id: 'low', key: 'a0', rule: { ...low, when: { kind: 'compare', is: '<', to: 0 } } } });
    expect(await legend()).toMatchObject([{ id: 'low', matched: 1, isDraft: true }]);
  });

  test('is shown beside the values it judges', async () => {
    const { profile, nearest } = (await ask({ kind: 'ask-profile', rule: 'low', reads: low.reads, thresholds: [5, 100] })) as RuleProfile;
    // The date counts among the numbers; x and done are the texts.
    expect(profile).toMatchObject({ numbers: 7, blanks: 1, others: 2, least: -5, greatest: 46_089, commonText: 'x' });
    expect(nearest).toEqual([
      { below: 4.9, at: 1, above: 6 },
      { below: 7, at: 0, above: 46_089 },
    ]);
    expect(profile.bins.reduce((sum, { outcomes }) => sum + (outcomes[0] ?? 0), 0)).toBe(3);
  });

  test('its cells are found one after another, and from the top again', async () => {
    const next = async (after: number) => ((await ask({ kind: 'ask-match', rule: 'low', after })) as { position: number }).position;
    expect([await next(-1), await next(2), await next(6), await next(9)]).toEqual([2, 6, 9, 2]);
    expect(await ask({ kind: 'ask-match', rule: 'gone', after: 0 })).toBeNull();
  });

  test('the spotlight marks what it paints, and headers', async () => {
    await ask({ kind: 'spotlight', rule: 'low' });
    const { spotlit } = await window();
    expect(Array.from(spotlit).flatMap((lit, at) => (lit ? [at / 3 + 1] : []))).toEqual([2, 6, 9]);
    expect(Array.from((await last('window-resolved')).frozen.spotlit)).toEqual([1, 1, 1]);
  });
});

test('a cell is told with its input, what it shows, and its trace', async () => {
  expect(await ask({ kind: 'ask-cell', column: 0, position: 6 })).toMatchObject({
    row: 'r5',
    field: 'f1',
    input: '70%',
    shown: '70%',
    trace: [{ rule: 'low', state: 'matched', compared: '70% is below 5' }],
  });
  expect(await ask({ kind: 'ask-cell', column: 0, position: 99 })).toBeNull();
});

test('in the dark, saved looks are the dark ones', async () => {
  await ask({ kind: 'use-theme', theme: 'dark' });
  const { lookTable } = await window();
  expect(lookTable[1]!.properties.fill).toBe('#5a2418');
});
