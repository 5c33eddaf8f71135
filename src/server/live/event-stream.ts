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

/** Server-sent events (HTML standard, 9.2). Whoever may read no more gets `closed`, and nothing after it. */
export function eventStream({ signal, mayRead, start }: Streamed): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let stop = () => {};
  return new ReadableStream<Uint8Array>({
    async start(controller) {
      let isOver = false;
      const write = (text: string) => !isOver && controller.enqueue(encoder.encode(text));
      const send = ({ event, data, json = JSON.stringify(data), id }: StreamEvent) =>
        write(`${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${json}\n\n`);
      const check = async () => {
        if (isOver || (await mayRead().catch(() => true))) return;
        send({ event: 'closed', data: {} });
        stop();
        controller.close();
      };
      write('retry: 1000\n\n');
      const beat = setInterval(() => {
        write(': still here\n\n');
        void check();
      }, KEEP_ALIVE_MS);
      const unwatch = liveHub().watchAccess(() => void check());
      stop = () => {
        isOver = true;
        clearInterval(beat);
        unwatch();
      };
      const end = await start(send);
      const pause = stop;
      stop = () => {
        pause();
        end();
      };
      signal.addEventListener('abort', () => stop());
      if (signal.aborted || isOver) stop();
    },
    cancel: () => stop(),
  });
}
