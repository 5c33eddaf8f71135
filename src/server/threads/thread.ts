import type { Worker } from 'node:worker_threads';

interface Waiting {
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

/** What is asked of a thread, by kind, and what each is answered with. */
export interface ThreadQuestions {
  readonly [kind: string]: { readonly asked: object; readonly answer: unknown };
}

/** A question on its way, and its answer. */
export type Asked<Q extends ThreadQuestions> = {
  readonly [K in keyof Q & string]: { readonly kind: K; readonly id: number } & Q[K]['asked'];
}[keyof Q & string];
export type Answered = { readonly id: number; readonly done: unknown } | { readonly id: number; readonly failed: string };

interface ThreadReports<Told> {
  /** Hears what the thread tells without being asked. */
  readonly told?: (message: Told) => void;
  /** The thread has fallen over: nothing that was in it is there any more. */
  readonly ended: () => void;
}

/**
 * The server's end of a thread: asks it, each question answered once. It is started when it is first
 * asked, and anew after it has fallen over; the process may end while it rests.
 */
export class Thread<Q extends ThreadQuestions, Said = never, Told = never> {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;

  /** `begin` starts the thread: with a path in full, as the bundler of the app takes parts of one for a search among its modules. */
  constructor(
    private readonly name: string,
    private readonly begin: () => Worker,
    private readonly reports: ThreadReports<Told>,
  ) {}

  ask<K extends keyof Q & string>(kind: K, asked: Q[K]['asked']): Promise<Q[K]['answer']> {
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { done: resolve as (answer: unknown) => void, failed: reject });
      this.started().postMessage({ kind, id, ...asked });
    });
  }

  /** Says something that has no answer. */
  say(message: Said): void {
    this.started().postMessage(message);
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = this.begin();
    worker.on('message', (message: Answered | Told) => this.take(message));
    worker.on('error', (error) => console.error(`the thread ${this.name} fell over`, error));
    worker.on('exit', () => {
      this.worker = null;
      const waiting = [...this.waiting.values()];
      this.waiting.clear();
      for (const { failed } of waiting) failed(new Error(`the thread ${this.name} fell over`));
      this.reports.ended();
    });
    worker.unref();
    return (this.worker = worker);
  }

  private take(message: Answered | Told): void {
    if (!isAnswer(message)) return this.reports.told?.(message as Told);
    const waiting = this.waiting.get(message.id);
    this.waiting.delete(message.id);
    if ('failed' in message) waiting?.failed(new Error(message.failed));
    else waiting?.done(message.done);
  }
}

const isAnswer = (message: unknown): message is Answered => typeof message === 'object' && message !== null && 'id' in message;
