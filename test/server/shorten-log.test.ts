import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { Readable } from 'node:stream';
import { gunzipSync } from 'node:zlib';
import { afterAll, expect, test } from 'vitest';
import type { Operation } from '../../src/core/sheet/change';
import { newField } from '../../src/core/sheet/field';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { shortenLogs } from '../../src/server/history/keep-logs-short';
import { archiveSheet } from '../../src/server/sheets/archive-sheet';
import { bringInSheet } from '../../src/server/sheets/bring-in-sheet';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { historyOf } from '../../src/server/sheets/read-history';
import { readPast } from '../../src/server/sheets/read-past';
import { readPacked } from '../../src/server/sheets/read-packed';
import { packedAsOf } from '../../src/server/sheets/sheet-as-of';
import { bringBack } from '../../src/server/sheets/take-back';
import { takeChange } from '../../src/server/sheets/take-change';
import { unzipPacked } from '../../src/server/sheets/unzip-packed';
import { hasLogAfter } from '../../src/server/sql/log-start';
import { contentsOf } from '../support/arbitrary-sheet';
import { testDatabase, TESTER } from '../support/test-database';

const { sql } = await testDatabase('shorten_log');
await sql`insert into person (id, email, name) values ('wren', 'wren@wrenfold.example', 'Wren')`;
const folder = mkdtempSync(join(tmpdir(), 'auxesis-log-'));
afterAll(() => rmSync(folder, { recursive: true }));

const CHANGES = 12;
const stateOf = (packed: Uint8Array) => contentsOf(unpackSheet(unzipPacked(packed)).sheet);
const asOf = async (sheet: string, sequence: number) => stateOf(await packedAsOf(sql, sheet, sequence));
const take = (sheet: string, id: string, ...operations: Operation[]) =>
  takeChange(sql, { sheet, by: TESTER, change: { id, operations } });
const enter = (input: string): Operation => ({ kind: 'set-cells', cells: [{ row: 'r', field: 'a', input }] });

/** A sheet with twelve changes, of which the first ones were made long ago, with what was in it after each of them. */
async function agedSheet(old: number) {
  const sheet = await createSheet(sql, {
    name: 'Aged',
    owner: 'wren',
    fields: [newField('a', 'a0')],
    rows: [{ id: 'r', key: 'a0', role: 'record', cells: {} }],
    rules: [],
  });
  for (let at = 1; at <= CHANGES; at++) await take(sheet, `c${at}`, enter(String(at)));
  await sql`update sheet_change set made_at = now() - interval '40 days' where sheet_id = ${sheet} and sequence <= ${old}`;
  await sql`update finding_head set sequence = ${CHANGES} where sheet_id = ${sheet}`;
  return sheet;
}
const shorten = (archive = folder) => shortenLogs(sql, { historyDays: 30, historyArchive: archive }, Date.now());
const left = async (sheet: string) =>
  (await sql<{ sequence: number }[]>`select sequence::int from sheet_change where sheet_id = ${sheet} order by 1`).map(
    ({ sequence }) => sequence,
  );

test('old changes go into a file and out of the log; the sheet, its later history and an archive of it stay as they were', async () => {
  const sheet = await agedSheet(5);
  const before = await Promise.all([5, 8, 12].map((sequence) => asOf(sheet, sequence)));
  const history = await historyOf(sql, sheet, {});
  expect(await shorten()).toBe(5);
  expect(await left(sheet)).toEqual([6, 7, 8, 9, 10, 11, 12]);
  expect(await Promise.all([5, 8, 12].map((sequence) => asOf(sheet, sequence)))).toEqual(before);
  expect(stateOf(await readPacked(sql, sheet))).toEqual(before[2]);
  expect(await historyOf(sql, sheet, {})).toEqual(history.slice(0, 7));

  // What is before is said to be gone, instead of shown wrongly.
  const gone = 'The history of this sheet begins later: earlier changes are not kept. Choose a later version.';
  await expect(asOf(sheet, 4)).rejects.toThrow(gone);
  await expect(bringBack(sql, { sheet, by: TESTER, sequence: 3, id: 'back' })).rejects.toThrow(gone);
  const past = await readPast(sql, sheet, { until: CHANGES });
  expect([past.isWhole, past.changes.map(({ sequence }) => sequence)]).toEqual([false, [6, 7, 8, 9, 10, 11, 12]]);
  expect(past.from).toBe(past.changes[0]!.at);
  // A page that was away since then opens the sheet again.
  expect(await Promise.all([4, 5, 12].map((after) => hasLogAfter(sql, sheet, after)))).toEqual([false, true, true]);

  const [file] = readdirSync(join(folder, sheet));
  expect(file).toBe('1-5.jsonl.gz');
  const lines = gunzipSync(readFileSync(join(folder, sheet, file!)))
    .toString()
    .trim()
    .split('\n');
  expect(lines.map((line) => (JSON.parse(line) as { change: { id: string } }).change.id)).toEqual([
    'c1',
    'c2',
    'c3',
    'c4',
    'c5',
  ]);

  const { packed } = await archiveSheet(sql, sheet);
  const again = await bringInSheet(sql, Readable.from([await buffer(packed)]), 'wren');
  expect(await left(again)).toEqual(await left(sheet));
  expect(await Promise.all([5, 8, 12].map((sequence) => asOf(again, sequence)))).toEqual(before);
  // Findings of what was brought in begin where its history does.
  const [head] = await sql`select sequence::int from finding_head where sheet_id = ${again}`;
  expect(head).toEqual({ sequence: 5 });
  await take(sheet, 'later', enter('13'));
  expect((await left(sheet)).at(-1)).toBe(13);
});

test('the last change stays, and whatever a named version or findings that are not known yet go back to', async () => {
  const [all, named, behind] = [await agedSheet(CHANGES), await agedSheet(8), await agedSheet(8)];
  await take(named, 'name', {
    kind: 'put-parts',
    parts: [{ id: 'snapshot then', kind: 'snapshot', name: 'then', sequence: 3 }],
  });
  const then = await asOf(named, 3);
  await sql`update finding_head set sequence = 6 where sheet_id = ${behind}`;
  expect(await shorten()).toBe(CHANGES - 1 + 3 + 6);
  expect(await left(all)).toEqual([CHANGES]);
  expect([(await left(named))[0], (await left(behind))[0]]).toEqual([4, 7]);
  expect(await asOf(named, 3)).toEqual(then);
  expect(await shorten()).toBe(0);
});

test('what cannot be written stays in the log; without a setting all of it stays', async () => {
  const sheet = await agedSheet(5);
  // A file is no folder.
  await expect(shorten(import.meta.filename)).rejects.toThrow();
  expect(await left(sheet)).toHaveLength(CHANGES);
  expect(await shortenLogs(sql, { historyDays: undefined, historyArchive: undefined }, Date.now())).toBe(0);
  expect(await shortenLogs(sql, { historyDays: 30, historyArchive: undefined }, Date.now())).toBe(5);
});
