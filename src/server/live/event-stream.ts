import { liveHub } from './hub';

const KEEP_ALIVE_MS = 15_000;

/** An event on its way: its name, what it says, and the place to resume from after it. */
export interface StreamEvent {
  readonly event: string;
  /** What it says; or that as JSON, where many are told the same. */
  readonly data: unknown;
  readonly json?: string;
  readonly id?: string;
}

interface Streamed {
  readonly signal: AbortSignal;
  /** Whether whoever reads may still: asked when somebody's access has changed, and now and then. */
  readonly mayRead: () => Promise<boolean>;
  /** Begins to send. Returns how to stop. */
  readonly start: (send: (event: StreamEvent) => void) => Promise<() => void>;
}

/**
 * Server-sent events (HTML standard, 9.2). Whoever may read no more gets `closed`, and nothing after it. Where it cannot begin, the stream
 * fails and nothing of it goes on.
 */
export function eventStream({ signal, mayRead, start }: Streamed): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  /** What is to be done when it is over, the last begun first; null once it is. */
  let endings: (() => void)[] | null = [];
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
        // Several may ask at once: the first that is told ends it.
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
      atEnd(liveHub().watchAccess(() => void check()));
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
