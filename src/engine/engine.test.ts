import { gzipSync } from 'node:zlib';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { FindQuery } from '../core/edit/find';
import type { AreaMeasures } from '../core/rules/explain/measure-area';
import type { RuleProfile } from '../core/rules/explain/profile-rule';
import type { ValuePart } from '../core/rules/explain/value-part';
import type { CopiedText, Event, Request } from '../protocol/engine-messages';
import type { Area, ActiveCell } from '../protocol/sheet-view';
import type { FakeServer } from '../../test/support/fake-server';
import { low, OpenEngine } from '../../test/support/open-engine';
import { putRules } from '../core/rules/shape/stored-rule';

let opened: OpenEngine;
let server: FakeServer;
const ask = (request: Request) => opened.ask(request);
async function cellAt(column: number, position: number): Promise<ActiveCell | null> {
  await ask({ kind: 'select', selection: { anchor: { column, position }, focus: { column, position } } });
  return (await opened.last('cell-resolved')).cell;
}
const last = <K extends Event['kind']>(kind: K) => opened.last(kind);
const frame = () => opened.frame();
const window = () => opened.window();
const legend = () => opened.legend();
const textAt = (column: number, position: number) => opened.textAt(column, position);
const rulesAt = (column: number, position: number) => opened.rulesAt(column, position);

beforeEach(async () => {
  opened = await OpenEngine.make();
  ({ server } = opened);
});
afterEach(() => vi.unstubAllGlobals());

test('opening a sheet sends its frame, its viewport, and what its rules paint', async () => {
  expect(await frame()).toMatchObject({
    name: 'Test',
    rowCount: 11,
    frozenRows: 1,
    fields: [{ label: 'One' }, { label: 'Two' }, { label: 'Three' }],
  });
  expect((await window()).area).toEqual({ left: 0, top: 1, right: 2, bottom: 10 });
  expect((await last('window-resolved')).frozen.texts).toEqual(['One', 'Two', 'Three']);
  expect(await legend()).toMatchObject([
    { id: 'low', read: 10, matched: 3, sentence: 'One is below 5', isDraft: false, problem: null },
  ]);
  expect(await rulesAt(0, 2)).toEqual(['Low']);
  expect(await rulesAt(0, 1)).toEqual([]);
});

test('a sheet that does not exist is an error in plain words', async () => {
  await expect(ask({ kind: 'open', sheet: 'gone', theme: 'light' })).rejects.toThrow();
  expect((await last('sheet-failed')).message).toContain('does not exist');
});

test('a sheet of another version than the page says what to do', async () => {
  const head = '{"v":1}';
  const packed = Buffer.concat([Buffer.from(Uint32Array.of(head.length).buffer), Buffer.from(head)]);
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(gzipSync(packed))));
  await expect(ask({ kind: 'open', sheet: 'test', theme: 'light' })).rejects.toThrow();
  expect((await last('sheet-failed')).message).toContain('Reload the page');
});

describe('an edit', () => {
  test('is seen at once, counted, and sent', async () => {
    await ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: '4' });
    expect(await textAt(0, 1)).toBe('4');
    expect(await rulesAt(0, 1)).toEqual(['Low']);
    expect((await legend())[0]!.matched).toBe(4);
    expect(server.received.map(({ operations }) => operations)).toEqual([
      [{ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input: '4' }] }],
    ]);
  });

  test('that changes nothing is not sent', async () => {
    await ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: '5' });
    await ask({ kind: 'enter', cell: { column: 9, position: 1 }, input: '5' });
    expect((await last('window-resolved')).window).toBeDefined();
    expect(server.received).toEqual([]);
  });

  test('that is refused is taken back, reported, and cannot be undone', async () => {
    server.answers.push(409);
    await ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: '4' });
    expect((await last('change-refused')).message).toBe('answered with 409');
    expect(await textAt(0, 1)).toBe('5');
    expect(await last('undo-changed')).toMatchObject({ undo: null, redo: null });
  });

  test('is undone and done again as new changes', async () => {
    await ask({ kind: 'edit', edit: { do: 'clear-cells', area: { left: 0, top: 1, right: 1, bottom: 3 } } });
    expect([await textAt(0, 1), await textAt(1, 3)]).toEqual(['', '']);
    await ask({ kind: 'undo' });
    expect([await textAt(0, 1), await textAt(0, 3)]).toEqual(['5', 'x']);
    await ask({ kind: 'redo' });
    expect(await textAt(0, 1)).toBe('');
    expect(await last('undo-changed')).toMatchObject({ undo: 'empty 6 cells', redo: null });
    expect(server.received).toHaveLength(3);
  });
});

test('somebody else’s change goes in beneath what has not come back yet', async () => {
  server.answers.push('down');
  await ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: 'mine' });
  const theirs = (input: string, row: string) => ({ kind: 'set-cells' as const, cells: [{ row, field: 'f1', input }] });
  server.elsewhere(theirs('theirs', 'r0'), theirs('also theirs', 'r1'));
  expect([await textAt(0, 1), await textAt(0, 2)]).toEqual(['mine', 'also theirs']);
});

describe('rows', () => {
  test('a record is added at the end, and read by the rules at once', async () => {
    await ask({ kind: 'edit', edit: { do: 'insert-rows', at: 11, count: 1 } });
    await ask({ kind: 'enter', cell: { column: 0, position: 11 }, input: '1' });
    expect(await legend()).toMatchObject([{ read: 11, matched: 4 }]);
    expect((await frame()).rowCount).toBe(12);
  });

  test('rows are removed and come back where they were', async () => {
    await ask({ kind: 'edit', edit: { do: 'remove-rows', top: 2, bottom: 3 } });
    expect([await textAt(0, 2), (await legend())[0]!.matched]).toEqual(['', 2]);
    await ask({ kind: 'undo' });
    expect([await textAt(0, 2), await textAt(0, 3), (await legend())[0]!.matched]).toEqual(['4.9', 'x', 3]);
  });
});

describe('a change of very many cells', () => {
  const area = { left: 0, top: 1, right: 0, bottom: 1 };
  const pasting = () => ask({ kind: 'paste', area, token: null, table: '1\t2\n'.repeat(6_000), how: 'all' });

  test('is stopped: nothing of it stays or is sent, and what was asked meanwhile is done after it', async () => {
    const pasted = pasting();
    const entered = ask({ kind: 'enter', cell: { column: 0, position: 1 }, input: '4' });
    await ask({ kind: 'stop' });
    await expect(pasted).rejects.toThrow('Stopped');
    await entered;
    expect(await frame()).toMatchObject({ rowCount: 11 });
    expect(await textAt(0, 1)).toBe('4');
    expect(await legend()).toMatchObject([{ read: 10, matched: 4 }]);
    expect(server.received).toHaveLength(1);
    expect((await last('undo-changed')).undo).toBe('entry in A2');
  });

  test('reports its progress, and is undone as one', async () => {
    await pasting();
    expect(opened.told.filter((event) => event.kind === 'work-progressed').map(({ share }) => share)).toContain(1);
    expect(await frame()).toMatchObject({ rowCount: 6_001 });
    expect(await legend()).toMatchObject([{ read: 6_000, matched: 6_000 }]);
    await ask({ kind: 'undo' });
    expect(await frame()).toMatchObject({ rowCount: 11 });
    expect(server.received).toHaveLength(2);
  });
});

describe('what is copied and pasted', () => {
  const paste = (area: Area, more: Partial<Extract<Request, { kind: 'paste' }>> = {}) =>
    ask({ kind: 'paste', area, token: null, table: [], how: 'all', ...more });
  const at = (column: number, position: number): Area => ({
    left: column,
    right: column,
    top: position,
    bottom: position,
  });

  test('goes to other programs as text and as a table with its looks', async () => {
    await ask({ kind: 'enter', cell: { column: 1, position: 1 }, input: 'a "b"\nc' });
    const copied = (await ask({ kind: 'copy', area: { left: 0, top: 1, right: 1, bottom: 2 } })) as CopiedText;
    expect(copied.text).toBe('5\t"a ""b""\nc"\r\n4.9\t7');
    expect(copied.html).toContain('<td style="background-color:#f7d3c8;color:#77200d;font-weight:bold">4.9</td>');
    expect(copied.html).toContain('a &#34;b&#34;');
  });

  test('comes back with formulas that move along, as values, as looks alone, and turned', async () => {
    await ask({ kind: 'edit', edit: { do: 'apply-style', area: at(2, 1), patch: { italic: true } } });
    await ask({ kind: 'enter', cell: { column: 2, position: 1 }, input: '=A2*2+$A$2' });
    await ask({ kind: 'enter', cell: { column: 2, position: 2 }, input: 'x' });
    const { html } = (await ask({ kind: 'copy', area: { left: 2, top: 1, right: 2, bottom: 2 } })) as CopiedText;
    const token = /data-cells="([^"]+)"/.exec(html)![1]!;
    const inputAt = async (column: number, position: number) => (await cellAt(column, position)) as ActiveCell;
    expect(await paste(at(2, 5), { token })).toEqual({ left: 2, right: 2, top: 5, bottom: 6 });
    expect(await inputAt(2, 5)).toMatchObject({ input: '=A6*2+$A$2', shown: '19', style: { italic: true } });
    await paste(at(1, 5), { token, how: 'values' });
    expect(await inputAt(1, 5)).toMatchObject({ input: '15', style: {} });
    await paste(at(0, 5), { token, how: 'looks' });
    expect(await inputAt(0, 5)).toMatchObject({ input: '7', style: { italic: true } });
    await paste(at(0, 8), { token, how: 'transposed' });
    expect(await inputAt(1, 8)).toMatchObject({ input: 'x' });
    // One that is not known any more is what the other program would have got.
    await paste(at(0, 9), { token: 'old', table: [['from', 'elsewhere']] });
    expect([await textAt(0, 9), await textAt(1, 9)]).toEqual(['from', 'elsewhere']);
  });

  test('one cell fills the whole selection, its formula moving along', async () => {
    await ask({ kind: 'enter', cell: { column: 1, position: 1 }, input: '=A2' });
    const { html } = (await ask({ kind: 'copy', area: at(1, 1) })) as CopiedText;
    await paste({ left: 1, top: 2, right: 2, bottom: 3 }, { token: /data-cells="([^"]+)"/.exec(html)![1]! });
    const cell = (await cellAt(2, 3)) as ActiveCell;
    expect(cell.input).toBe('=B4');
  });
});

test('records that a rule paints are put first, and in order among themselves', async () => {
  const by = [{ rule: 'low', order: 'falling' } as const, { column: 0, order: 'rising' } as const];
  await ask({ kind: 'edit', edit: { do: 'sort-rows', by } });
  const texts = await Promise.all(Array.from({ length: 10 }, (_, at) => textAt(0, at + 1)));
  expect(texts).toEqual(['-5', '70%', '4.9', '5', '6', '7', '2026-03-08', 'done', 'x', '']);
  expect((await last('undo-changed')).undo).toBe('sort by 2 fields');
});

test('the first fields are kept in view, and every other record is shaded, for everybody', async () => {
  await ask({ kind: 'edit', edit: { do: 'freeze-fields', through: 1 } });
  await ask({ kind: 'edit', edit: { do: 'band-records', on: true } });
  expect(await frame()).toMatchObject({ frozenColumns: 2, isBanded: true });
  expect([...(await window()).banded]).toEqual([0, 1, 0, 1, 0, 1, 0, 1, 0, 1]);
  await ask({ kind: 'edit', edit: { do: 'remove-fields', left: 1, right: 1 } });
  expect((await frame()).frozenColumns).toBe(0);
  await ask({ kind: 'undo' });
  expect((await frame()).frozenColumns).toBe(2);
});

test('cells are found by a text, by the rule that paints them, or by both', async () => {
  const find = (wanted: Partial<FindQuery>) =>
    ask({ kind: 'find', wanted: { text: '', exact: false, pattern: false, ...wanted } });
  // 4.9, 70% and -5 are low.
  expect(await find({ painted: 'low' })).toEqual([2, 6, 9].map((position) => ({ column: 0, position })));
  expect(await find({ painted: 'low', text: '5' })).toEqual([{ column: 0, position: 9 }]);
  expect(await find({ painted: 'gone' })).toEqual([]);
  expect(await find({})).toEqual([]);
});

describe('what is asked of a selection', () => {
  test('how much is there, and what paints it', async () => {
    const measures = (await ask({
      kind: 'measure',
      areas: [{ left: 0, top: 1, right: 0, bottom: 10 }],
    })) as AreaMeasures;
    // 5, 4.9, x, blank, 7, 70%, done, a date, -5 and 6.
    expect(measures).toMatchObject({ filled: 9, numbers: 6, distinct: 9, least: -5, greatest: 7, format: null });
    expect(measures.sum).toBeCloseTo(18.6, 12);
    expect(measures.average).toBeCloseTo(3.1, 12);
    expect(measures.painted).toEqual([{ rule: 'low', name: 'Low', cells: 3 }]);
    const twice = [1, 1].map((top) => ({ left: 0, top, right: 0, bottom: top + 1 }));
    expect(await ask({ kind: 'measure', areas: [...twice, { left: 0, top: 10, right: 0, bottom: 10 }] })).toMatchObject(
      { filled: 3, greatest: 6 },
    );
    expect(await ask({ kind: 'measure', areas: [{ left: 0, top: 4, right: 0, bottom: 4 }] })).toMatchObject({
      filled: 0,
      sum: null,
      least: null,
    });
  });

  test('the edge of the data, the longest texts, the values of a field', async () => {
    const edge = (column: number, position: number, [columns, rows]: readonly [number, number]) =>
      ask({ kind: 'ask-edge', column, position, columns, rows });
    expect(await edge(0, 0, [0, 1])).toEqual({ column: 0, position: 3 });
    expect(await edge(0, 3, [0, 1])).toEqual({ column: 0, position: 5 });
    expect(await edge(0, 10, [0, 1])).toEqual({ column: 0, position: 10 });
    expect(await edge(0, 5, [0, -1])).toEqual({ column: 0, position: 3 });
    expect(await ask({ kind: 'ask-texts', left: 0, right: 0 })).toEqual([
      expect.arrayContaining(['2026-03-08', 'One']),
    ]);
    await ask({ kind: 'enter', cell: { column: 0, position: 2 }, input: '5' });
    const values = (await ask({ kind: 'ask-values', column: 0 })) as { text: string; count: number }[];
    expect(values.map(({ text, count }) => `${text} (${count})`)).toEqual([
      '-5 (1)',
      '70% (1)',
      '5 (2)',
      '6 (1)',
      '7 (1)',
      '2026-03-08 (1)',
      'done (1)',
      'x (1)',
      ' (1)',
    ]);
  });

  test('where a text is found', async () => {
    const wanted = { text: 'DONE', exact: false, pattern: false };
    expect(await ask({ kind: 'find', wanted })).toContainEqual({ column: 0, position: 7 });
    await expect(ask({ kind: 'find', wanted: { ...wanted, text: '(', pattern: true } })).rejects.toThrow(
      'cannot be read as a pattern',
    );
  });
});

test('rules and ranges follow in the same change, and come back with it', async () => {
  const rule = { ...low, reads: { cells: 'A2:A4' } };
  await ask({ kind: 'change', operations: [putRules([{ id: 'low', key: 'a0', rule }])] });
  await ask({ kind: 'enter', cell: { column: 2, position: 10 }, input: '=SUM(A2:A4)' });
  await ask({ kind: 'edit', edit: { do: 'remove-rows', top: 3, bottom: 3 } });
  expect((await legend())[0]!.rule.reads).toEqual({ cells: 'A2:A3' });
  expect(await cellAt(2, 9)).toMatchObject({ input: '=SUM(A2:A3)' });
  await ask({ kind: 'undo' });
  expect((await legend())[0]!.rule.reads).toEqual({ cells: 'A2:A4' });
  expect(await cellAt(2, 10)).toMatchObject({ input: '=SUM(A2:A4)' });
});

describe('a rule on the bench', () => {
  const draft = {
    id: 'new',
    key: 'Zz',
    rule: {
      ...low,
      id: 'new',
      name: 'New',
      when: { kind: 'compare' as const, is: '>' as const, to: 5 },
      look: { look: 'cool' },
    },
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
    await ask({
      kind: 'draft',
      rule: { id: 'low', key: 'a0', rule: { ...low, when: { kind: 'compare', is: '<', to: 0 } } },
    });
    expect(await legend()).toMatchObject([{ id: 'low', matched: 1, isDraft: true }]);
  });

  test('is shown beside the values it judges', async () => {
    const { profile, nearest } = (await ask({
      kind: 'ask-profile',
      rule: 'low',
      reads: low.reads,
      thresholds: [5, 100],
    })) as RuleProfile;
    // The date counts among the numbers; x and done are the texts.
    expect(profile).toMatchObject({ numbers: 7, blanks: 1, others: 2, least: -5, greatest: 46_089, commonText: 'x' });
    expect(nearest).toEqual([
      { below: 4.9, at: 1, above: 6 },
      { below: 7, at: 0, above: 46_089 },
    ]);
    expect(profile.bins.reduce((sum, { outcomes }) => sum + (outcomes[0] ?? 0), 0)).toBe(3);
  });

  test('its cells are found one after another, and from the top again', async () => {
    const next = async (after: number) =>
      ((await ask({ kind: 'ask-match', rule: 'low', after })) as { position: number }).position;
    expect([await next(-1), await next(2), await next(6), await next(9)]).toEqual([2, 6, 9, 2]);
    expect(await ask({ kind: 'ask-match', rule: 'gone', after: 0 })).toBeNull();
  });

  test('the spotlight marks what it paints, and headers', async () => {
    await ask({ kind: 'spotlight', rule: 'low' });
    const { spotlit } = await window();
    expect(Array.from(spotlit).flatMap((lit, at) => (lit ? [at / 3 + 1] : []))).toEqual([2, 6, 9]);
    expect(Array.from((await last('window-resolved')).frozen.spotlit)).toEqual([1, 1, 1]);
    const lit = async (part: ValuePart) => {
      await ask({ kind: 'spotlight', rule: 'low', part });
      return Array.from((await window()).spotlit).flatMap((each, at) => (each ? [at / 3 + 1] : []));
    };
    // Of what the rule reads, the numbers of a bar from its one edge to its other, and a text.
    expect(await lit({ from: 4.9, to: 6, takesEnd: false })).toEqual([1, 2]);
    expect(await lit({ from: 4.9, to: 6, takesEnd: true })).toEqual([1, 2, 10]);
    expect(await lit({ text: 'done' })).toEqual([7]);
  });
});

test('a cell comes with its input, what it shows, and its trace', async () => {
  expect(await cellAt(0, 6)).toMatchObject({
    row: 'r5',
    field: 'f1',
    input: '70%',
    shown: '70%',
    trace: [{ rule: 'low', state: 'matched', compared: '70% is below 5' }],
  });
  expect(await cellAt(0, 99)).toBeNull();
});

test('in the dark, saved looks are the dark ones', async () => {
  await ask({ kind: 'use-theme', theme: 'dark' });
  const { lookTable } = await window();
  expect(lookTable[1]!.properties.fill).toBe('#5a2418');
});
