import { gzipSync } from 'node:zlib';
import { vi } from 'vitest';
import type { Change, Operation } from '../../src/core/sheet/change';
import type { Sheet } from '../../src/core/sheet/sheet';
import { SheetPacker } from '../../src/protocol/packed/packed-sheet';
import type { RecordedChange } from '../../src/protocol/recorded-change';
import { rulesOf } from '../../src/core/rules/shape/stored-rule';

/** A stream of server-sent events that the test sends itself. */
export class FakeEventSource extends EventTarget {
  static readonly opened: FakeEventSource[] = [];
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  isClosed = false;

  constructor(readonly url: string) {
    super();
    FakeEventSource.opened.push(this);
    queueMicrotask(() => this.onopen?.());
  }

  send(changes: readonly RecordedChange[]): void {
    this.dispatchEvent(new MessageEvent('changes', { data: JSON.stringify(changes) }));
  }

  close(): void {
    this.isClosed = true;
  }
}

let made = 0;

/** Stands in for the server in tests of the worker: one sheet, and the answers to changes that a test sets. */
export class FakeServer {
  /** Of its sheet. What an engine of an earlier test still tries to send to another one is never answered. */
  readonly id = `test ${++made}`;
  readonly received: Change[] = [];
  /** The ids of the changes in each request. */
  readonly requests: string[][] = [];
  /** The ids of changes that are refused where several come at once. */
  readonly refuses = new Set<string>();
  /** What the next changes are answered with: a status, or `down` for no answer at all. After these, 200. */
  readonly answers: (number | 'down')[] = [];
  private sequence = 0;

  /** Changes come back by the stream, as from a real server, unless `echo` is off. */
  constructor(
    private readonly sheet: Sheet,
    private readonly echo: 'on' | 'off' = 'on',
  ) {
    FakeEventSource.opened.length = 0;
    vi.stubGlobal('EventSource', FakeEventSource);
    vi.stubGlobal('fetch', (url: string, init?: RequestInit) => this.answer(url, init));
  }

  get stream(): FakeEventSource {
    return FakeEventSource.opened.at(-1)!;
  }

  private answer(url: string, init?: RequestInit): Promise<Response> {
    const isOwn = url.includes(`/${encodeURIComponent(this.id)}/`);
    if (url.endsWith('/packed')) return Promise.resolve(isOwn ? this.packed() : new Response('{}', { status: 404 }));
    if (!isOwn) return new Promise(() => {});
    if (url.endsWith('/presence')) return Promise.resolve(new Response(null, { status: 204 }));
    const body = JSON.parse(init!.body as string) as Change | readonly Change[];
    this.requests.push([body].flat().map(({ id }) => id));
    const status = this.answers.shift() ?? 200;
    if (status === 'down') return Promise.reject(new TypeError('fetch failed'));
    if (status !== 200)
      return Promise.resolve(
        Response.json(
          { refused: `answered with ${status}` },
          { status, headers: status === 503 ? { 'retry-after': '3' } : {} },
        ),
      );
    const answers = [body].flat().map((change) => {
      if (this.refuses.has(change.id)) return { refused: `not ${change.id}` };
      this.received.push(change);
      this.record(change);
      return { sequence: this.sequence };
    });
    return Promise.resolve(Response.json(Array.isArray(body) ? answers : answers[0]));
  }

  /** A change that somebody else makes. */
  elsewhere(...operations: Operation[]): void {
    this.record({ id: `elsewhere ${this.sequence}`, operations });
  }

  private record(change: Change): void {
    this.sequence++;
    if (this.echo === 'on') this.stream.send([{ sequence: this.sequence, at: Date.now(), change }]);
  }

  private packed(): Response {
    const packer = new SheetPacker({
      id: 'test',
      name: 'Test',
      settings: {},
      sequence: this.sequence,
      fields: this.sheet.fields,
      rules: rulesOf(this.sheet),
      parts: [...this.sheet.parts.values()],
    });
    for (const slot of this.sheet.order) packer.add(this.sheet.storedRow(slot));
    return new Response(gzipSync(packer.pack()));
  }
}
