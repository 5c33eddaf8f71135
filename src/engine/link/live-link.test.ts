import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Change } from '../../core/sheet/change';
import { LiveLink, type LinkEvent } from './live-link';
import { makeSheet } from '../../../test/support/arbitrary-sheet';
import { FakeEventSource, FakeServer } from '../../../test/support/fake-server';

let server: FakeServer;
let log: string[];
let sequence: number;

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer(makeSheet(), 'off');
  log = [];
  sequence = 7;
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const link = () =>
  new LiveLink(
    server.id,
    () => `/api/sheets/${encodeURIComponent(server.id)}/changes?after=${sequence}`,
    (event) => {
      const words = wordsOf(event);
      if (event.kind !== 'state' || log.at(-1) !== words) log.push(words);
    },
  );

function wordsOf(event: LinkEvent): string {
  switch (event.kind) {
    case 'changes':
      return `received ${event.changes.map((change) => change.sequence).join()}`;
    case 'accepted':
      return `accepted ${event.change.id} as ${event.sequence}`;
    case 'refused':
      return `refused ${event.change.id}: ${event.message}`;
    case 'repaint':
      return `repainted ${event.repaint.revision}`;
    case 'presence':
      return `present ${event.people.length}`;
    case 'state':
      return event.state;
    default:
      return event.kind;
  }
}

const change = (id: string): Change => ({ id, operations: [{ kind: 'remove-rows', rows: ['r'] }] });
const pass = (ms = 0) => vi.advanceTimersByTimeAsync(ms);

test('changes go one after another, each once, however often the server is away', async () => {
  const live = link();
  server.answers.push('down', 'down', 503);
  for (const id of ['a', 'b', 'c']) live.send(change(id));
  await pass();
  expect(log.at(-1)).toBe('offline');
  await pass(10_000);
  expect(server.received.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  expect(log.filter((line) => line.startsWith('accepted'))).toEqual([
    'accepted a as 1',
    'accepted b as 2',
    'accepted c as 3',
  ]);
});

test('changes that have waited go in one request, as far as they are not too long for it', async () => {
  const live = link();
  server.answers.push('down');
  for (const id of ['a', 'b', 'c']) live.send(change(id));
  live.send({ id: 'long', operations: [{ kind: 'remove-rows', rows: ['r'.repeat(150_000)] }] });
  live.send(change('d'));
  await pass(5000);
  expect(server.requests).toEqual([['a'], ['a', 'b', 'c'], ['long'], ['d']]);
  expect(log.filter((line) => line.startsWith('accepted'))).toHaveLength(5);
});

test('each of several changes in one request has its own answer; a refused request is sent again one change at a time', async () => {
  const live = link();
  server.refuses.add('b');
  server.answers.push('down');
  for (const id of ['a', 'b', 'c']) live.send(change(id));
  await pass(5000);
  expect(log.filter((line) => !/live|offline/.test(line))).toEqual([
    'accepted a as 1',
    'refused b: not b',
    'accepted c as 2',
  ]);
  server.answers.push('down', 400);
  for (const id of ['d', 'e']) live.send(change(id));
  await pass(5000);
  expect(server.requests.slice(-4)).toEqual([['d'], ['d', 'e'], ['d'], ['e']]);
});

test('the page shows a busy server as busy, not as offline, and waits as long as Retry-After says', async () => {
  const live = link();
  server.answers.push(503);
  live.send(change('a'));
  await pass();
  expect(log.at(-1)).toBe('busy');
  await pass(2900);
  expect(server.received).toEqual([]);
  await pass(2000);
  expect(log.slice(-2)).toEqual(['live', 'accepted a as 1']);
});

test('a refused change is reported, and those behind it go on', async () => {
  const live = link();
  server.answers.push(409);
  for (const id of ['a', 'b']) live.send(change(id));
  await pass();
  expect(log.filter((line) => !/live|offline/.test(line))).toEqual(['refused a: answered with 409', 'accepted b as 1']);
});

test('a change over which the server fails again and again does not hold up the others for ever', async () => {
  const live = link();
  server.answers.push(500, 500, 500, 500, 500, 500);
  for (const id of ['a', 'b']) live.send(change(id));
  await pass(60_000);
  expect(log.filter((line) => /refused|accepted/.test(line))).toEqual([
    'refused a: answered with 500',
    'accepted b as 1',
  ]);
});

test('a stream that breaks is taken up where we are, not where it began', async () => {
  link();
  await pass();
  expect(server.stream.url).toBe(`/api/sheets/${encodeURIComponent(server.id)}/changes?after=7`);
  server.stream.send([
    { sequence: 8, at: 0, change: change('x') },
    { sequence: 9, at: 0, change: change('y') },
  ]);
  sequence = 9;
  server.stream.onerror!();
  expect(server.stream.isClosed).toBe(true);
  await pass(500);
  expect(FakeEventSource.opened).toHaveLength(2);
  expect(server.stream.url).toContain('after=9');
  expect(log).toEqual(['live', 'received 8,9', 'offline', 'live']);
});

test('a stream that cannot be resumed asks for the sheet anew; a link that is closed stays closed', async () => {
  const live = link();
  await pass();
  server.stream.dispatchEvent(new MessageEvent('stale', { data: '{}' }));
  expect(log.at(-1)).toBe('stale');
  live.close();
  expect(server.stream.isClosed).toBe(true);
});
