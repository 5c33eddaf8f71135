import { createServer, get, request, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { text } from 'node:stream/consumers';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { quick, withQuickRoutes } from './quick-routes';

let port = 0;
/** Streams that are open. */
const sinks: { write: (bytes: Uint8Array) => void; end: () => void }[] = [];
let stopped = 0;

const inFramework = quick('POST /quick/[name]/things', async ({ headers, body, url }, { params }) => {
  const { name = '' } = await params;
  if (name === '') return new Response('no such thing', { status: 404, headers: { 'x-why': 'name' } });
  const sent = await text(body as IncomingMessage);
  return { json: { name, sent, type: headers.get('content-type'), none: headers.get('x-none'), url } };
});
quick('GET /quick/events', () =>
  Promise.resolve({
    events: {
      sendTo: (sink) => {
        sinks.push(sink);
        sink.write(Buffer.from('data: first\n\n'));
        return Promise.resolve();
      },
      stop: () => stopped++,
    },
  }),
);

const handle = withQuickRoutes((_, response) => {
  response.end('framework');
  return Promise.resolve();
});
const server = createServer((asked, response) => void handle(asked, response));

beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
beforeAll(() => void (port = (server.address() as AddressInfo).port));
afterAll(() => new Promise((resolve) => server.close(resolve)));

const post = (path: string, body: string): Promise<IncomingMessage> =>
  new Promise((resolve) => {
    request({ port, path, method: 'POST', headers: { 'content-type': 'text/plain' } }, resolve).end(body);
  });
const until = (isSo: () => boolean) => expect.poll(isSo).toBe(true);

test('a quick route is answered with what it gives, all else by the framework', async () => {
  const answer = await post('/quick/a%20b/things?x=1', 'body');
  expect(answer.headers['content-type']).toBe('application/json');
  expect(JSON.parse(await text(answer))).toEqual({
    name: 'a b',
    sent: 'body',
    type: 'text/plain',
    none: null,
    url: 'http://localhost/quick/a%20b/things?x=1',
  });
  expect(await text(await post('/quick/a/things/more', ''))).toBe('framework');
  const refused = await post('/quick/%E0%A4%A/things', 'a body that nobody reads');
  expect([refused.statusCode, refused.headers['x-why'], await text(refused)]).toEqual([404, 'name', 'no such thing']);
});

test('the framework gets the same answer as a Response of the web', async () => {
  const asked = new Request('http://localhost/quick/a/things', { method: 'POST', body: 'body' });
  const response = await inFramework(asked, { params: Promise.resolve({ name: 'a' }) });
  expect(response.headers.get('content-type')).toContain('application/json');
  expect(await response.json()).toMatchObject({ name: 'a', sent: 'body' });
});

test('events go out as they come; a reader who goes, and one who does not read, are given up', async () => {
  const open = (): Promise<IncomingMessage> => new Promise((resolve) => get({ port, path: '/quick/events' }, resolve));
  const reader = await open();
  expect(reader.headers['content-type']).toContain('text/event-stream');
  const said = new Promise<string>((resolve) => reader.once('data', (part: Buffer) => resolve(part.toString())));
  expect(await said).toBe('data: first\n\n');
  reader.destroy();
  await until(() => stopped === 1);
  const slow = await open();
  slow.on('error', () => {});
  const part = Buffer.alloc(1_000_000, 'x');
  for (let sent = 0; sent < 60 && stopped === 1; sent++) {
    sinks.at(-1)!.write(part);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  await until(() => stopped === 2);
});
