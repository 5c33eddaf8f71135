import { openStreams, stoppingStreams } from './open-streams';
import type { Served } from '../access/access-channel';
import { Refusal } from '../refusal';
import { liveHub } from './hub';
import { refusalText } from '../../texts/refusal-text';

/** An event on its way: its name, what it says, and the place to resume from after it. */
export interface StreamEvent {
  readonly event: string;
  readonly data: unknown;
  readonly id?: string;
}

const encoder = new TextEncoder();
const BEGINNING = encoder.encode('retry: 1000\n\n');
const BEAT = encoder.encode(': still here\n\n');
const KEEP_ALIVE_MS = 15_000;

/** An event as it is sent: spelled out once where many readers get it. */
export const spellEvent = ({ event, data, id }: StreamEvent): Uint8Array =>
  encoder.encode(`${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);

/** Streams that are open at once: of one person or visitor, and of all, in this process. */
const MAX_OF_ONE = 60;
const MAX_IN_ALL = 3000;

const open = openStreams();
const stopping = stoppingStreams();

interface Streamed {
  readonly served: Served;
  readonly signal: AbortSignal;
  /** Whether the reader still has access: checked when access has changed, and at intervals. */
  readonly mayRead: () => Promise<boolean>;
  /** Begins to send. Returns how to stop. */
  readonly start: (send: (event: StreamEvent | Uint8Array) => void) => Promise<() => void>;
}

/** Headers of server-sent events, which nothing on the way may hold back. */
export const EVENT_HEADERS = {
  'content-type': 'text/event-stream; charset=utf-8',
  'cache-control': 'no-store, no-transform',
  'x-accel-buffering': 'no',
} as const;

/** Where a stream goes. */
export interface Sink {
  readonly write: (bytes: Uint8Array) => void;
  readonly end: () => void;
}

/** Server-sent events on their way to one reader. */
export interface EventStream {
  /** Sends all of it, until it is over; called once. Fails where it cannot begin. */
  readonly sendTo: (sink: Sink) => Promise<void>;
  /** The reader has gone. */
  readonly stop: () => void;
}

/** The same as a stream of the web. */
export const readableOf = ({ sendTo, stop }: EventStream): ReadableStream<Uint8Array> =>
  new ReadableStream<Uint8Array>({
    start: (controller) => sendTo({ write: (bytes) => controller.enqueue(bytes), end: () => controller.close() }),
    cancel: stop,
  });

/** An answer that goes on. */
export const eventResponse = (stream: EventStream): Response =>
  new Response(readableOf(stream), { headers: EVENT_HEADERS });

/** Counts a stream of somebody. Throws a Refusal where they have too many. Returns what is to be called at its end. */
function countStream(author: string): () => void {
  const ofOne = open.get(author) ?? 0;
  const inAll = [...open.values()].reduce((sum, count) => sum + count, 0);
  if (ofOne >= MAX_OF_ONE || inAll >= MAX_IN_ALL) throw new Refusal('too-busy', refusalText('tooManyPagesOpen'));
  open.set(author, ofOne + 1);
  return () => {
    const left = (open.get(author) ?? 1) - 1;
    if (left === 0) open.delete(author);
    else open.set(author, left);
  };
}

/** What is to be done once a stream is over, the last begun first. */
class Endings {
  private due: (() => void)[] | null;

  constructor(first: () => void) {
    this.due = [first];
  }

  get isSo(): boolean {
    return this.due === null;
  }

  /** Does something at the end: at once where it is over already. */
  atEnd(end: () => void): void {
    if (this.due) this.due.push(end);
    else end();
  }

  end(): void {
    const due = this.due ?? [];
    this.due = null;
    for (const end of due.reverse()) end();
  }
}

/**
 * Server-sent events (HTML standard, 9.2). A reader without access gets `closed`, and nothing after it. When the server
 * stops, the stream ends and its reader connects again. Where it cannot begin, the stream fails and nothing of it goes
 * on. Throws a Refusal where too many are open.
 */
export function eventStream({ served, signal, mayRead, start }: Streamed): EventStream {
  const over = new Endings(countStream(served.author));
  const stop = () => over.end();
  return {
    async sendTo(sink) {
      const write = (bytes: Uint8Array) => !over.isSo && sink.write(bytes);
      const send = (event: StreamEvent | Uint8Array) => write(event instanceof Uint8Array ? event : spellEvent(event));
      const check = async () => {
        // Several may ask at once: the first refusal ends it.
        if ((await mayRead().catch(() => true)) || over.isSo) return;
        send({ event: 'closed', data: {} });
        stop();
        sink.end();
      };
      write(BEGINNING);
      const beat = setInterval(() => {
        write(BEAT);
        void check();
      }, KEEP_ALIVE_MS);
      over.atEnd(() => clearInterval(beat));
      over.atEnd(liveHub().watchAccess(served, () => void check()));
      const end = () => {
        if (over.isSo) return;
        stop();
        sink.end();
      };
      stopping.add(end);
      over.atEnd(() => stopping.delete(end));
      signal.addEventListener('abort', stop);
      try {
        over.atEnd(await start(send));
      } catch (error) {
        stop();
        throw error;
      }
      if (signal.aborted) stop();
    },
    stop,
  };
}
