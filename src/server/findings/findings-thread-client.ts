import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { KeptAnswers, KeptMessages } from './kept-sheet';

interface Waiting {
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

type Answered = { readonly id: number; readonly done: unknown } | { readonly id: number; readonly failed: string };

/** The server's end of the findings' thread. It is started when it is first asked, and anew after it has fallen over. */
export class FindingsThread {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;

  /** `ended` is called when the thread has fallen over: nothing is open there any more. */
  constructor(private readonly ended: () => void) {}

  ask<K extends keyof KeptMessages>(kind: K, asked: KeptMessages[K]): Promise<KeptAnswers[K]> {
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { done: resolve as (answer: unknown) => void, failed: reject });
      this.open().postMessage({ kind, id, ...asked });
    });
  }

  private open(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(join(process.cwd(), 'dist', 'findings.cjs'));
    worker.on('message', (message: Answered) => {
      const waiting = this.waiting.get(message.id);
      this.waiting.delete(message.id);
      if ('failed' in message) waiting?.failed(new Error(message.failed));
      else waiting?.done(message.done);
    });
    worker.on('error', (error) => console.error('the findings fell over', error));
    worker.on('exit', () => {
      this.worker = null;
      for (const { failed } of this.waiting.values()) failed(new Error('the findings fell over'));
      this.waiting.clear();
      this.ended();
    });
    // The process may end while it rests.
    worker.unref();
    return (this.worker = worker);
  }
}
