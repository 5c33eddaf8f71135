import fc from 'fast-check';
import { gunzipSync } from 'node:zlib';
import { beforeEach, describe, expect, test } from 'vitest';
import type { Operation } from '../../src/core/sheet/change';
import { Sheet } from '../../src/core/sheet/sheet';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { historyOf } from '../../src/server/sheets/read-history';
import { Refusal } from '../../src/server/refusal';
import { packedAsOf } from '../../src/server/sheets/sheet-as-of';
import { bringBack, takeBack } from '../../src/server/sheets/take-back';
import { takeChange } from '../../src/server/sheets/take-change';
import { anyOperation, contentsOf, makeSheet } from '../support/arbitrary-sheet';
import { testDatabase, TESTER } from '../support/test-database';
import { findRule, putRules } from '../../src/core/rules/shape/stored-rule';

const { sql } = await testDatabase('history');
let sheet = '';
let made = 0;

const low = {
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'state' as const, is: 'blank' as const },
  paints: 'cell' as const,
};
const take = (...operations: Operation[]) =>
  takeChange(sql, { sheet, by: TESTER, change: { id: `change ${++made}`, operations } });
const set = (row: string, field: string, input: string): Operation => ({
  kind: 'set-cells',
  cells: [{ row, field, input }],
});
async function asOf(sequence: number): Promise<Sheet> {
  const bytes = gunzipSync(await packedAsOf(sql, sheet, sequence));
  return unpackSheet(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer).sheet;
}
const start = () => {
  const { fields, order } = makeSheet();
  const rows = order.map((slot) => makeSheet().storedRow(slot));
  return { name: 'Test', fields, rows, rules: [] };
};

beforeEach(async () => {
  sheet = await createSheet(sql, start());
});

test('the sheet as it was at any moment is what an independent replay of the log gives', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyOperation, { minLength: 1, maxLength: 8 }), fc.nat(8), async (operations, asked) => {
      sheet = await createSheet(sql, start());
      const taken: Operation[] = [];
      for (const operation of operations)
        await take(operation).then(
          () => taken.push(operation),
          (error: unknown) => expect(error).toBeInstanceOf(Refusal),
        );
      const sequence = Math.min(asked, taken.length);
      const { fields, rows } = start();
      const replayed = new Sheet(fields);
      replayed.apply({ kind: 'insert-rows', rows });
      for (const operation of taken.slice(0, sequence)) replayed.apply(operation);
      expect(contentsOf(await asOf(sequence))).toEqual(contentsOf(replayed));
      // Brought back, the sheet is that again.
      if (sequence === taken.length) return;
      await bringBack(sql, { sheet, by: TESTER, sequence, id: 'all back' });
      expect(contentsOf(await asOf(taken.length + 1))).toEqual(contentsOf(replayed));
    }),
    { numRuns: 40 },
  );
});

test('a moment that has not come is refused, and so is a sheet that is not there', async () => {
  await expect(packedAsOf(sql, sheet, 1)).rejects.toMatchObject({ code: 'bad-request' });
  await expect(packedAsOf(sql, 'gone', 0)).rejects.toMatchObject({ code: 'no-sheet' });
});

describe('the history', () => {
  beforeEach(async () => {
    await take(set('r0', 'f1', '4.4'), set('r0', 'f1', '4.5'), set('r2', 'f3', 'seen'));
    await take({ kind: 'remove-rows', rows: ['r3'] });
    await take(set('r2', 'f1', 'again'));
  });

  test('lists the value of each cell before a change and after it, the newest first', async () => {
    const before = makeSheet();
    const held = (row: string, column: number) => before.columns[column]!.inputAt(before.findSlot(row)!);
    const entries = await historyOf(sql, sheet, {});
    expect(entries.map(({ sequence, says }) => [sequence, says])).toEqual([
      [3, ['1 cell entered']],
      [2, ['1 row deleted']],
      [1, ['1 cell entered']],
    ]);
    expect(entries[2]!.cells.map(({ row, before: was, after }) => [row, was, after])).toEqual([
      ['r0', held('r0', 0), '4.5'],
      ['r2', held('r2', 2), 'seen'],
    ]);
    expect(entries[0]!.cells[0]).toMatchObject({ label: 'One', before: held('r2', 0) });
  });

  test('of a change of very many cells it lists the first, and how many there were', async () => {
    const before = makeSheet();
    const inputs = Array.from({ length: 400 }, (_, at) => `v${at}`);
    await take({
      kind: 'insert-rows',
      rows: inputs.map((input, at) => ({
        id: `n${at}`,
        key: `z${String(at).padStart(3, '0')}`,
        role: 'record',
        cells: { f1: input },
      })),
    });
    await take({
      kind: 'set-cells',
      cells: [
        { row: 'r0', field: 'f2', input: 'first' },
        ...inputs.map((input, at) => ({ row: `n${at}`, field: 'f1', input: `${input}!` })),
      ],
    });
    const [newest] = await historyOf(sql, sheet, {});
    expect(newest!.says).toEqual(['401 cells entered']);
    expect(newest!.cells.map(({ row, before: was, after }) => [row, was, after])).toEqual([
      ['r0', before.columns[1]!.inputAt(before.findSlot('r0')!), 'first'],
      ...inputs.slice(0, 4).map((input, at) => [`n${at}`, input, `${input}!`]),
    ]);
    const [asked] = await historyOf(sql, sheet, { row: 'n350' });
    expect(asked!.cells).toMatchObject([{ row: 'n350', before: 'v350', after: 'v350!' }]);
  });

  test('is asked for by field, by record, and from a change backwards', async () => {
    const sequences = async (query: Parameters<typeof historyOf>[2]) =>
      (await historyOf(sql, sheet, query)).map(({ sequence }) => sequence);
    expect(await sequences({ field: 'f3' })).toEqual([1]);
    expect(await sequences({ row: 'r2' })).toEqual([3, 1]);
    expect(await sequences({ row: 'r2', field: 'f1' })).toEqual([3]);
    expect(await sequences({ before: 3 })).toEqual([2, 1]);
    expect(await sequences({ field: 'f2' })).toEqual([]);
  });

  test('a change is taken back by a new one; what was entered anew since then stays', async () => {
    const before = makeSheet();
    await take(set('r2', 'f3', 'newer'));
    expect(await takeBack(sql, { sheet, by: TESTER, sequence: 1, id: 'back' })).toBe(5);
    const now = await asOf(5);
    const held = (row: string, column: number) => now.columns[column]!.inputAt(now.findSlot(row)!);
    expect(held('r0', 0)).toBe(before.columns[0]!.inputAt(before.findSlot('r0')!));
    expect(held('r2', 2)).toBe('newer');
    await takeBack(sql, { sheet, by: TESTER, sequence: 2, id: 'back again' });
    expect((await asOf(6)).findSlot('r3')).toBeDefined();
    await expect(takeBack(sql, { sheet, by: TESTER, sequence: 99, id: 'none' })).rejects.toMatchObject({
      code: 'bad-request',
    });
    await expect(bringBack(sql, { sheet, by: TESTER, sequence: 6, id: 'nothing' })).rejects.toMatchObject({
      code: 'bad-request',
    });
  });

  test('of the whole sheet only some cells can be brought back', async () => {
    const head = (await sql`select head::int from sheet where id = ${sheet}`)[0]!.head as number;
    await take(set('r0', 'f1', 'changed'), set('r1', 'f1', 'changed too'));
    await bringBack(sql, { sheet, by: TESTER, sequence: head, id: 'some', cells: [{ row: 'r0', field: 'f1' }] });
    const now = await asOf(head + 2);
    const held = (which: typeof now, row: string) => which.columns[0]!.inputAt(which.findSlot(row)!);
    expect([held(now, 'r0'), held(now, 'r1')]).toEqual([held(await asOf(head), 'r0'), 'changed too']);
    await expect(
      bringBack(sql, { sheet, by: TESTER, sequence: head, id: 'none', cells: [{ row: 'r5', field: 'f1' }] }),
    ).rejects.toThrow('nothing to restore');
  });

  test('rules, fields, parts and new rows that somebody has changed since stay, and nothing is taken back where all was', async () => {
    const bands = { id: 'bands', kind: 'bands' } as const;
    const rule = (look: string) => ({ id: 'r', key: 'a0', rule: { ...low, look: { fill: look } } });
    const first = await take(
      putRules([rule('#111111')]),
      { kind: 'put-parts', parts: [bands] },
      { kind: 'insert-rows', rows: [{ id: 'new', key: 'zz', role: 'record', cells: { f1: '1' } }] },
    );
    await take(putRules([rule('#222222')]), set('new', 'f2', 'filled since'));
    await takeBack(sql, { sheet, by: TESTER, sequence: first, id: 'partly' });
    const now = await asOf(first + 2);
    expect(findRule(now, 'r')?.rule.look).toEqual({ fill: '#222222' });
    expect(now.findSlot('new')).toBeDefined();
    expect(now.parts.get('bands')).toBeUndefined();
    await expect(takeBack(sql, { sheet, by: TESTER, sequence: first, id: 'again' })).rejects.toThrow('nothing to undo');
  });

  test('is asked for by rule, and by who made it', async () => {
    const sequences = async (query: Parameters<typeof historyOf>[2]) =>
      (await historyOf(sql, sheet, query)).map(({ sequence }) => sequence);
    const ruled = await take(putRules([{ id: 'r', key: 'a0', rule: low }]));
    const gone = await take({ kind: 'remove-rules', rules: ['r', 'other'] });
    expect(await sequences({ rule: 'r' })).toEqual([gone, ruled]);
    expect(await sequences({ rule: 'none' })).toEqual([]);
    expect(await sequences({ by: 'person nobody' })).toEqual([]);
  });
});
