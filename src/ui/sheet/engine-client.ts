import {
  PROTOCOL_VERSION,
  type AnswerOf,
  type Event,
  type FromEngine,
  type Request,
  type ToEngine,
} from '../../protocol/engine-messages';

interface Waiting {
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

/** The page's end of the engine in its worker: asks, and hears what happened. */
export class EngineClient {
  private readonly worker = new Worker(new URL('../../engine/worker.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;

  constructor(hear: (events: readonly Event[]) => void) {
    this.worker.onmessage = ({ data }: MessageEvent<FromEngine>) => {
      if ('events' in data) return hear(data.events);
      const waiting = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ('failed' in data) waiting?.failed(new Error(data.failed));
      else waiting?.done(data.done);
    };
  }

  ask<R extends Request>(request: R): Promise<AnswerOf<R['kind']>> {
    const id = ++this.lastId;
    const message: ToEngine = { v: PROTOCOL_VERSION, id, ...request };
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { done: resolve as (answer: unknown) => void, failed: reject });
      this.worker.postMessage(message);
    });
  }

  close(): void {
    this.worker.terminate();
  }
}
