import { EventSource } from 'eventsource';
import { Engine } from '../../src/engine/engine';
import type { Event } from '../../src/protocol/engine-messages';

/** The acknowledged changes: the sequence of each by its id. */
export type Acknowledged = Map<string, number>;

interface Network {
  /** Where the app is, by way of whatever stands between. */
  address: string;
  cookie: string;
  readonly acknowledged: Acknowledged;
  /** How often the server said no, by status. */
  readonly statuses: Map<number, number>;
}

/**
 * Lets engines in this process ask the app as pages of one person do: relative addresses lead to `network.address`,
 * with the person's cookies. What is acknowledged is kept. Returns how to put everything back.
 */
export function connectPages(network: Network): () => void {
  const before = { fetch: globalThis.fetch, EventSource: globalThis.EventSource };
  const asPerson = async (url: string | URL | Request, init?: RequestInit): Promise<Response> => {
    const headers = { ...(init?.headers as Record<string, string>), cookie: network.cookie };
    const answer = await before.fetch(new URL(String(url), network.address), { ...init, headers });
    network.statuses.set(answer.status, (network.statuses.get(answer.status) ?? 0) + 1);
    if (init?.method !== 'POST' || !answer.ok) return answer;
    const text = await answer.text();
    // One change and its answer, or a list of each.
    const sent = [JSON.parse(init.body as string) as { id?: string } | readonly { id?: string }[]].flat();
    const answers = [JSON.parse(text) as { sequence?: number } | readonly { sequence?: number }[]].flat();
    sent.forEach(({ id }, at) => {
      const sequence = answers[at]?.sequence;
      if (id !== undefined && sequence !== undefined) network.acknowledged.set(id, sequence);
    });
    return new Response(text, { status: answer.status });
  };
  class PersonEvents extends EventSource {
    constructor(url: string) {
      super(new URL(url, network.address), { fetch: (at, init) => asPerson(at as URL, init as RequestInit) });
    }
  }
  Object.assign(globalThis, { fetch: asPerson, EventSource: PersonEvents });
  return () => Object.assign(globalThis, before);
}

/** A page without a browser: the engine and its events. */
export class DrillPage {
  private link: Extract<Event, { kind: 'link-changed' }> | undefined;
  private texts = '';
  readonly refusals: string[] = [];
  private readonly engine: Engine;

  /** `Made` is the engine of another version, where it is not to be that of these sources. */
  constructor(Made: typeof Engine = Engine) {
    this.engine = new Made((events) => events.forEach((event) => this.hear(event)));
  }

  async open(sheet: string, rows = 40): Promise<void> {
    await this.engine.answer({ kind: 'open', sheet, theme: 'light' });
    await this.engine.answer({ kind: 'look-at', area: { left: 0, top: 0, right: 11, bottom: rows } });
  }

  enter(column: number, position: number, input: string): Promise<unknown> {
    return this.engine.answer({ kind: 'enter', cell: { column, position }, input });
  }

  /** Another random thing that people do: clears, fills, undoes. */
  undo(): Promise<unknown> {
    return this.engine.answer({ kind: 'undo' });
  }

  get isSettled(): boolean {
    return this.link?.state === 'live' && this.link.pending === 0;
  }

  /** The visible window. */
  get shown(): string {
    return this.texts;
  }

  close(): void {
    this.engine.close();
  }

  private hear(event: Event): void {
    if (event.kind === 'link-changed') this.link = event;
    else if (event.kind === 'change-refused') this.refusals.push(event.message);
    else if (event.kind === 'window-resolved') this.texts = JSON.stringify(event.window.texts);
  }
}
