import { afterEach, expect, test, vi } from 'vitest';
import { testDatabase } from './test-database';

const { sql, url } = await testDatabase('event_stream');
// The hub takes the process's own pool.
process.env.DATABASE_URL = url;
const { eventStream } = await import('../../src/server/live/event-stream');
const { liveHub } = await import('../../src/server/live/hub');
const { tellAccessChanged } = await import('../../src/server/access/access-channel');
await liveHub().followAll(() => {});

afterEach(() => vi.useRealTimers());

/** All that a stream says to its end. */
async function textOf(stream: ReadableStream<Uint8Array>): Promise<string> {
  let text = '';
  const reader = stream.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) text += new TextDecoder().decode(part.value);
  return text;
}

test('whoever may read no more is told once, however many changes of access come at once, and nothing after it', async () => {
  let may = true;
  let ended = 0;
  let say: (event: { event: string; data: unknown }) => void = () => {};
  const stream = eventStream({
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
  await tellAccessChanged(sql);
  say({ event: 'second', data: { a: 2 } });
  await new Promise((resolve) => setTimeout(resolve, 100));
  may = false;
  await Promise.all([tellAccessChanged(sql), tellAccessChanged(sql), tellAccessChanged(sql)]);
  const text = await reading;
  say({ event: 'late', data: 3 });
  // The form is that of the HTML standard, "Server-sent events".
  expect(text).toBe('retry: 1000\n\nevent: first\ndata: 1\n\nevent: second\ndata: {"a":2}\n\nevent: closed\ndata: {}\n\n');
  expect(ended).toBe(1);
});

test('a stream that cannot begin fails, and nothing of it goes on', async () => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
  const asked = vi.fn(() => Promise.resolve(true));
  const stream = eventStream({ signal: new AbortController().signal, mayRead: asked, start: () => Promise.reject(new Error('no painter')) });
  await expect(textOf(stream)).rejects.toThrow('no painter');
  // The beat would write into a stream that is no more, and take the process with it.
  await vi.advanceTimersByTimeAsync(60_000);
  await tellAccessChanged(sql);
  expect(vi.getTimerCount()).toBe(0);
  expect(asked).not.toHaveBeenCalled();
});

test('a reader that leaves while the stream begins ends it all the same', async () => {
  const leaving = new AbortController();
  let ended = 0;
  const stream = eventStream({
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
