import { newField } from '../../src/core/sheet/field';
import { expect, test } from 'vitest';
import type { RecordedChange } from '../../src/protocol/recorded-change';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { takeChange } from '../../src/server/sheets/take-change';
import { testDatabase, TESTER } from '../support/test-database';

const { sql, url } = await testDatabase('change_stream');
// The hub takes the process's own pool.
process.env.DATABASE_URL = url;
const { changeStream } = await import('../../src/server/live/change-stream');
const { readableOf } = await import('../../src/server/live/event-stream');
const { database } = await import('../../src/server/database');

const newSheet = () =>
  createSheet(sql, {
    name: 'Test',
    fields: [newField('a', 'a0')],
    rows: [{ id: 'r', key: 'a0', role: 'record', cells: {} }],
    rules: [],
  });
const write = (sheet: string, at: number) =>
  takeChange(sql, {
    sheet,
    by: TESTER,
    change: { id: `c${at}`, operations: [{ kind: 'set-cells', cells: [{ row: 'r', field: 'a', input: String(at) }] }] },
  });

/** Reads a stream up to a sequence, then leaves it. */
async function readUntil(sheet: string, after: number, last: number): Promise<{ sequences: number[]; text: string }> {
  const leave = new AbortController();
  const stream = await changeStream(sql, {
    sheet,
    after,
    served: { sheet, author: 'test' },
    signal: leave.signal,
    mayRead: () => Promise.resolve(true),
  });
  const reader = readableOf(stream).getReader();
  let text = '';
  const sequences: number[] = [];
  while (sequences.at(-1) !== last) {
    const { value, done } = await reader.read();
    if (done) break;
    const part = new TextDecoder().decode(value);
    text += part;
    const data = /^event: changes\ndata: (.*)$/m.exec(part)?.[1];
    if (data) sequences.push(...(JSON.parse(data) as RecordedChange[]).map(({ sequence }) => sequence));
    if (part.includes('event: stale')) break;
  }
  leave.abort();
  await reader.cancel();
  return { sequences, text };
}

test('a reader gets what was there and what comes, and resumes with nothing lost or doubled', async () => {
  const sheet = await newSheet();
  for (let at = 1; at <= 3; at++) await write(sheet, at);
  const reading = readUntil(sheet, 1, 8);
  for (let at = 4; at <= 8; at++) await write(sheet, at);
  const first = await reading;
  expect(first.sequences).toEqual([2, 3, 4, 5, 6, 7, 8]);
  // A server-sent event's id is where a reader resumes (HTML standard, "Server-sent events").
  expect(first.text).toMatch(/^id: 8$/m);
  for (let at = 9; at <= 11; at++) await write(sheet, at);
  expect((await readUntil(sheet, 8, 11)).sequences).toEqual([9, 10, 11]);
});

test('many readers of one process all hear of a change', async () => {
  const sheet = await newSheet();
  const readers = Array.from({ length: 12 }, () => readUntil(sheet, 0, 20));
  await Promise.all(Array.from({ length: 20 }, (_, at) => write(sheet, at)));
  for (const { sequences } of await Promise.all(readers))
    expect(sequences).toEqual(Array.from({ length: 20 }, (_, at) => at + 1));
});

test('a reader that is ahead of the log has to load again', async () => {
  expect((await readUntil(await newSheet(), 99, 100)).text).toContain('event: stale');
  await database().end();
});
