import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { EventSource } from 'eventsource';
import postgres from 'postgres';
import { Engine } from '../../src/engine/engine';
import type { Event } from '../../src/protocol/engine-messages';
import { freePort, serve, stopServers } from './own-server';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

test.afterEach(stopServers);

const WRITERS = 20;
const ENTRIES = 15;
const RECORDS = 25;

test('an edit through one process is seen by a reader on the other', async ({ page, browser }) => {
  const other = `http://127.0.0.1:${await freePort()}`;
  await serve(Number(new URL(other).port));
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder', '9'],
  ]);
  const here = await SheetPage.open(page, id);
  const context = await browser.newContext({ baseURL: other });
  const there = await SheetPage.open(await context.newPage(), id);
  expect(new URL(there.page.url()).origin).toBe(other);
  await here.type('B2', '4.2');
  await expect(there.cell('B2')).toHaveText('4.2');
  await there.type('B3', '7');
  await expect(here.cell('B3')).toHaveText('7');
  await context.close();
});

/** Passes requests on to one of some servers after the other; requests to one that has ended are cut off. */
async function switchboard(ports: number[]): Promise<{ server: Server; address: string }> {
  let asked = 0;
  const server = createServer((from, to) => {
    const port = ports[asked++ % ports.length]!;
    const sent = request(
      { host: '127.0.0.1', port, path: from.url, method: from.method, headers: from.headers },
      (found) => {
        to.writeHead(found.statusCode!, found.headers);
        to.flushHeaders();
        found.pipe(to);
        found.on('error', () => to.destroy());
        found.on('aborted', () => to.destroy());
      },
    );
    sent.on('error', () => to.destroy());
    to.on('close', () => sent.destroy());
    from.pipe(sent);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

/** A page without a browser: the engine and its events. */
class Writer {
  private readonly told: Event[] = [];
  readonly engine = new Engine((events) => this.told.push(...events));

  async open(sheet: string): Promise<void> {
    await this.engine.answer({ kind: 'open', sheet, theme: 'light' });
    await this.engine.answer({ kind: 'look-at', area: { left: 0, top: 0, right: 11, bottom: RECORDS } });
  }

  get link() {
    return this.told.findLast((event) => event.kind === 'link-changed');
  }

  get refusals(): number {
    return this.told.filter((event) => event.kind === 'change-refused').length;
  }

  get texts(): string {
    return JSON.stringify(this.told.findLast((event) => event.kind === 'window-resolved')?.window.texts);
  }
}

test('one of two processes is killed while twenty people write: each acknowledged change is there once, and all come to the same', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const id = await makeSheet(page, [['Station'], ...Array.from({ length: RECORDS - 1 }, (_, at) => [`Station ${at}`])]);
  const ports = [await freePort(), await freePort()];
  const doomed = await serve(ports[0]!);
  await serve(ports[1]!);
  const { server, address } = await switchboard(ports);

  // What the engine asks of a browser, with the cookies of the owner.
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const { fetch: plainFetch } = globalThis;
  const acknowledged = new Map<string, number>();
  const asOwner = async (url: string | URL | Request, init?: RequestInit): Promise<Response> => {
    const answer = await plainFetch(new URL(String(url), address), {
      ...init,
      headers: { ...(init?.headers as Record<string, string>), cookie },
    });
    if (init?.method !== 'POST' || !answer.ok) return answer;
    const text = await answer.text();
    // One change and its answer, or a list of each.
    const sent = [JSON.parse(init.body as string) as { id: string } | readonly { id: string }[]].flat();
    const answers = [JSON.parse(text) as { sequence: number } | readonly { sequence: number }[]].flat();
    sent.forEach((change, at) => acknowledged.set(change.id, answers[at]!.sequence));
    return new Response(text, { status: answer.status });
  };
  class OwnerEvents extends EventSource {
    constructor(url: string) {
      super(new URL(url, address), { fetch: (at, init) => asOwner(at as URL, init as RequestInit) });
    }
  }
  Object.assign(globalThis, { fetch: asOwner, EventSource: OwnerEvents });
  const writers = Array.from({ length: WRITERS }, () => new Writer());
  try {
    await Promise.all(writers.map((writer) => writer.open(id)));
    let written = 0;
    await Promise.all(
      writers.map(async (writer, who) => {
        for (let at = 0; at < ENTRIES; at++) {
          // Some write into the same cells.
          await writer.engine.answer({
            kind: 'enter',
            cell: { column: 1 + (who % 4), position: 1 + ((at * 7 + who) % (RECORDS - 1)) },
            input: `${who} wrote ${at}`,
          });
          await new Promise((resolve) => setTimeout(resolve, 20));
          if (++written === (WRITERS * ENTRIES) / 3) {
            ports.shift();
            doomed.kill('SIGKILL');
          }
        }
      }),
    );
    await expect
      .poll(() => writers.every(({ link }) => link?.state === 'live' && link.pending === 0), { timeout: 90_000 })
      .toBe(true);
    await expect.poll(() => new Set(writers.map(({ texts }) => texts)).size, { timeout: 30_000 }).toBe(1);
  } finally {
    Object.assign(globalThis, { fetch: plainFetch });
    for (const { engine } of writers) engine.close();
    server.closeAllConnections();
    server.close();
  }
  expect(writers.map(({ refusals }) => refusals)).toEqual(writers.map(() => 0));
  expect(acknowledged.size).toBe(WRITERS * ENTRIES);

  const sql = postgres(process.env.DATABASE_URL!, { max: 1 });
  const log = await sql<
    { change_id: string; sequence: number }[]
  >`select change_id, sequence::int from sheet_change where sheet_id = ${id} order by sequence`;
  await sql.end();
  expect(log.map(({ sequence }) => sequence)).toEqual(log.map((_, at) => at + 1));
  const places = new Map<string, number[]>();
  for (const { change_id, sequence } of log) places.set(change_id, [...(places.get(change_id) ?? []), sequence]);
  for (const [change, sequence] of acknowledged) expect(places.get(change), change).toEqual([sequence]);

  // A page that is opened now shows the same.
  const late = await SheetPage.open(page, id);
  const rows = await late.texts('ABCDE', 1, 6);
  const width = 12;
  const texts = JSON.parse(writers[0]!.texts) as string[];
  expect(rows).toEqual(rows.map((_, row) => texts.slice(row * width, row * width + 5)));
});
