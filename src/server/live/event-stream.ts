import { openStreams, stoppingStreams } from './open-streams';
import type { Served } from '../access/access-channel';
import { Refusal } from '../refusal';
import { liveHub } from './hub';
import { refusalText } from '../../texts/refusal-text';

const KEEP_ALIVE_MS = 15_000;

/** An event on its way: its name, what it says, and the place to resume from after it. */
export interface StreamEvent {
  readonly event: string;
  /** The data; or the same as JSON, where many readers get it. */
  readonly data: unknown;
  readonly json?: string;
  readonly id?: string;
}

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
  readonly start: (send: (event: StreamEvent) => void) => Promise<() => void>;
}

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

/**
 * Server-sent events (HTML standard, 9.2). A reader without access gets `closed`, and nothing after it. When the server
 * stops, the stream ends and its reader connects again. Where it cannot begin, the stream fails and nothing of it goes
 * on. Throws a Refusal where too many are open.
 */
export function eventStream({ served, signal, mayRead, start }: Streamed): ReadableStream<Uint8Array> {
  const uncount = countStream(served.author);
  const encoder = new TextEncoder();
  /** The clean-up when it is over, the last begun first; null once it is done. */
  let endings: (() => void)[] | null = [uncount];
  const stop = (): void => {
    const due = endings ?? [];
    endings = null;
    for (const end of due.reverse()) end();
  };
  /** Does something when it is over: at once where it is already. */
  const atEnd = (end: () => void): void => {
    if (endings) endings.push(end);
    else end();
  };
  return new ReadableStream<Uint8Array>({
    async start(controller) {
      const write = (text: string) => endings && controller.enqueue(encoder.encode(text));
      const send = ({ event, data, json = JSON.stringify(data), id }: StreamEvent) =>
        write(`${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${json}\n\n`);
      const check = async () => {
        // Several may ask at once: the first refusal ends it.
        if ((await mayRead().catch(() => true)) || !endings) return;
        send({ event: 'closed', data: {} });
        stop();
        controller.close();
      };
      write('retry: 1000\n\n');
      const beat = setInterval(() => {
        write(': still here\n\n');
        void check();
      }, KEEP_ALIVE_MS);
      atEnd(() => clearInterval(beat));
      atEnd(liveHub().watchAccess(served, () => void check()));
      const end = () => {
        if (!endings) return;
        stop();
        controller.close();
      };
      stopping.add(end);
      atEnd(() => stopping.delete(end));
      signal.addEventListener('abort', stop);
      try {
        atEnd(await start(send));
      } catch (error) {
        stop();
        throw error;
      }
      if (signal.aborted) stop();
    },
    cancel: stop,
  });
}
