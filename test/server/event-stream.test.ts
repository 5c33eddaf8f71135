import { afterEach, expect, test, vi } from 'vitest';
import type { AccessChange } from '../../src/server/access/access-channel';
import { testDatabase } from '../support/test-database';

const { sql, url } = await testDatabase('event_stream');
// The hub takes the process's own pool.
process.env.DATABASE_URL = url;
const { eventStream: events, readableOf } = await import('../../src/server/live/event-stream');
const eventStream = (streamed: Parameters<typeof events>[0]) => readableOf(events(streamed));
const { liveHub } = await import('../../src/server/live/hub');
const { changeAccess } = await import('../../src/server/access/change-access');
await liveHub().followAll(() => {});
const accessChanged = (changed: AccessChange) =>
  changeAccess(sql, () => Promise.resolve({ changed, value: undefined }));

const served = { sheet: 's', author: 'person p' };

afterEach(() => vi.useRealTimers());

/** All that a stream says to its end. */
async function textOf(stream: ReadableStream<Uint8Array>): Promise<string> {
  let text = '';
  const reader = stream.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read())
    text += new TextDecoder().decode(part.value);
  return text;
}

test('a reader who loses access gets one message, however many changes of access come at once, and nothing after it', async () => {
  let may = true;
  let ended = 0;
  let say: (event: { event: string; data: unknown }) => void = () => {};
  const stream = eventStream({
    served,
    signal: new AbortController().signal,
    // Asked a while: several are being asked at once.
    mayRead: () => new Promise((resolve) => setTimeout(() => resolve(may), 30)),
    start: (send) => {
      say = send;
      send({ event: 'first', data: 1 });
      return Promise.resolve(() => ended++);
    },
  });
  const reading = textOf(stream);
  await accessChanged({ sheet: 's' });
  say({ event: 'second', data: { a: 2 } });
  await new Promise((resolve) => setTimeout(resolve, 100));
  may = false;
  await Promise.all([accessChanged({ sheet: 's' }), accessChanged({ sheet: 's' }), accessChanged({ sheet: 's' })]);
  const text = await reading;
  say({ event: 'late', data: 3 });
  // The form is that of the HTML standard, "Server-sent events".
  expect(text).toBe(
    'retry: 1000\n\nevent: first\ndata: 1\n\nevent: second\ndata: {"a":2}\n\nevent: closed\ndata: {}\n\n',
  );
  expect(ended).toBe(1);
});

test('a stream that cannot begin fails, and nothing of it goes on', async () => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
  const asked = vi.fn(() => Promise.resolve(true));
  const stream = eventStream({
    served,
    signal: new AbortController().signal,
    mayRead: asked,
    start: () => Promise.reject(new Error('no painter')),
  });
  await expect(textOf(stream)).rejects.toThrow('no painter');
  // The beat would write into a stream that is no more, and take the process with it.
  await vi.advanceTimersByTimeAsync(60_000);
  await accessChanged({ sheet: 's' });
  expect(vi.getTimerCount()).toBe(0);
  expect(asked).not.toHaveBeenCalled();
});

test('a reader that leaves while the stream begins ends it all the same', async () => {
  const leaving = new AbortController();
  let ended = 0;
  const stream = eventStream({
    served,
    signal: leaving.signal,
    mayRead: () => Promise.resolve(true),
    start: async () => {
      leaving.abort();
      await new Promise((resolve) => setTimeout(resolve, 5));
      return () => ended++;
    },
  });
  const reader = stream.getReader();
  await reader.read();
  await expect.poll(() => ended).toBe(1);
  await reader.cancel();
  expect(ended).toBe(1);
});

test('a change of access wakes the streams that it may concern, and no others', async () => {
  const asked: string[] = [];
  const leave = new AbortController();
  const open = (name: string, about: { sheet: string; author: string; person?: string }) =>
    eventStream({
      served: about,
      signal: leave.signal,
      mayRead: () => Promise.resolve(asked.push(name) > 0),
      start: () => Promise.resolve(() => {}),
    });
  const streams = [
    open('odo here', { sheet: 'here', author: 'person odo' }),
    open('odo there', { sheet: 'there', author: 'person odo' }),
    open('odo as a visitor', { sheet: 'there', author: 'visitor v', person: 'odo' }),
    open('ilse here', { sheet: 'here', author: 'person ilse' }),
  ];
  await Promise.all(streams.map((stream) => stream.getReader().read()));
  await accessChanged({ person: 'odo' });
  await expect.poll(() => [...asked].sort()).toEqual(['odo as a visitor', 'odo here', 'odo there']);
  await accessChanged({ sheet: 'here' });
  await expect.poll(() => asked.slice(3).sort()).toEqual(['ilse here', 'odo here']);
  leave.abort();
});

test('nobody opens more streams than there is room for', () => {
  const leave = new AbortController();
  const open = () =>
    eventStream({
      served: { sheet: 's', author: 'person many' },
      signal: leave.signal,
      mayRead: () => Promise.resolve(true),
      start: () => Promise.resolve(() => {}),
    });
  for (let at = 0; at < 60; at++) open();
  expect(open).toThrow('Too many pages are open');
  leave.abort();
  expect(open).not.toThrow();
});
