import { beforeEach, describe, expect, test } from 'vitest';
import type { Change, Operation } from '../../src/core/sheet/change';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { readPacked } from '../../src/server/sheets/read-packed';
import { Refusal } from '../../src/server/sheets/refusal';
import { takeChange } from '../../src/server/sheets/take-change';
import { readChangesAfter } from '../../src/server/sql/change/read-changes-after';
import { migrate } from '../../src/server/migrate';
import { seedDemo } from '../../src/demo/seed-demo';
import { unpackSheet } from '../../src/protocol/packed-sheet';
import { gunzipSync } from 'node:zlib';
import { contentsOf } from '../arbitrary-sheet';
import { MIGRATIONS, testDatabase } from './test-database';

const { sql } = await testDatabase('take_change');
let sheet = '';
let made = 0;

const field = (id: string) => ({ id, widthPx: 100, format: null, unit: null });
const rule = {
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when: { kind: 'compare' as const, is: '<' as const, to: 5 },
  paints: 'cell' as const,
};
const change = (...operations: Operation[]): Change => ({ id: `change ${++made}`, operations });
const take = (given: Change) => takeChange(sql, { sheet, author: 'test', change: given });
const set = (row: string, input: string, at = 'a'): Operation => ({ kind: 'set-cells', cells: [{ row, field: at, input }] });
const stored = async () => {
  const bytes = gunzipSync(await readPacked(sql, sheet));
  return contentsOf(unpackSheet(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer).sheet);
};

beforeEach(async () => {
  sheet = await createSheet(sql, {
    name: 'Test',
    fields: [field('a'), field('b')],
    rows: [
      { id: 'h', key: 'a0', role: 'header', cells: { a: 'A' } },
      { id: 'r1', key: 'a1', role: 'record', cells: { a: '5', b: 'x' } },
    ],
    rules: [],
  });
});

test('a change is applied, recorded with its inverse, and moves the head', async () => {
  expect(await take(change(set('r1', '4'), set('r1', '')))).toBe(1);
  expect(await take(change(set('r1', '7', 'b')))).toBe(2);
  expect((await stored()).rows[1]!.cells).toEqual({ b: '7' });
  const [log] = await sql`select inverse, author from sheet_change where sheet_id = ${sheet} and sequence = 1`;
  expect(log).toMatchObject({ author: 'test', inverse: [set('r1', '4'), set('r1', '5')] });
});

test('every operation can be taken back by what was recorded', async () => {
  const before = await stored();
  const operations: Operation[] = [
    set('r1', 'new'),
    { kind: 'insert-rows', rows: [{ id: 'r2', key: 'a05', role: 'record', cells: { b: '1' } }] },
    { kind: 'put-rules', rules: [{ id: 'r', key: 'a0', rule }] },
    { kind: 'put-rules', rules: [{ id: 'r', key: 'a1', rule: { ...rule, on: false } }] },
    { kind: 'remove-rows', rows: ['r1', 'r2'] },
    { kind: 'remove-rules', rules: ['r'] },
  ];
  for (const operation of operations) await take(change(operation));
  expect(await stored()).not.toEqual(before);
  const log = await sql<{ inverse: Operation[] }[]>`select inverse from sheet_change where sheet_id = ${sheet} order by sequence desc`;
  for (const { inverse } of log) await take(change(...inverse));
  expect(await stored()).toEqual(before);
});

test('the same change sent twice, even at the same moment, is taken once', async () => {
  const once = change({ kind: 'insert-rows', rows: [{ id: 'r2', key: 'a2', role: 'record', cells: {} }] });
  expect(await Promise.all([take(once), take(once), take(once)])).toEqual([1, 1, 1]);
  expect((await stored()).rows).toHaveLength(3);
});

test('changes that arrive together get a sequence each, without gaps', async () => {
  const sequences = await Promise.all(Array.from({ length: 12 }, (_, at) => take(change(set('r1', String(at))))));
  expect(sequences.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, at) => at + 1));
  const log = await readChangesAfter(sql, sheet, { after: 4, limit: 3 });
  expect(log.map(({ sequence }) => sequence)).toEqual([5, 6, 7]);
});

describe('what cannot be taken leaves nothing behind', () => {
  test.each([
    ['a row that is gone', 'row-gone', set('gone', '1')],
    ['a field that is gone', 'field-gone', set('r1', '1', 'gone')],
    ['a row that is there', 'row-exists', { kind: 'insert-rows', rows: [{ id: 'r1', key: 'a2', role: 'record', cells: {} }] } as Operation],
  ])('%s', async (_, code, operation) => {
    const before = await stored();
    const refused = await take(change(set('r1', 'half'), operation)).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Refusal);
    expect((refused as Refusal).code).toBe(code);
    expect(await stored()).toEqual(before);
    expect(await readChangesAfter(sql, sheet, { after: 0, limit: 9 })).toEqual([]);
  });

  test('a sheet that does not exist', async () => {
    await expect(takeChange(sql, { sheet: 'gone', author: 'test', change: change(set('r1', '1')) })).rejects.toMatchObject({ code: 'no-sheet' });
  });
});

test('the schema is brought up to date once, and the demo is put in once', async () => {
  expect(await migrate(sql, MIGRATIONS)).toEqual([]);
  const now = new Date('2026-03-08T12:00:00Z');
  expect([await seedDemo(sql, now), await seedDemo(sql, now)]).toEqual([true, false]);
});
