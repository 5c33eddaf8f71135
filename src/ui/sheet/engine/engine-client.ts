import { Asker, type Reply } from '../../../protocol/channel';
import type { AnswerOf, EngineQuestions, Event, Request } from '../../../protocol/engine-messages';

/** The page's end of the engine in its worker: asks, and hears what happened. */
export class EngineClient {
  private readonly worker = new Worker(new URL('../../../engine/worker.ts', import.meta.url), { type: 'module' });
  private readonly asker: Asker<EngineQuestions, readonly Event[]>;

  constructor(onEvents: (events: readonly Event[]) => void) {
    this.asker = new Asker((message) => this.worker.postMessage(message), onEvents);
    this.worker.onmessage = ({ data }: MessageEvent<Reply<readonly Event[]>>) => this.asker.hear(data);
  }

  ask<R extends Request>(request: R): Promise<AnswerOf<R['kind']>> {
    return this.asker.ask(request);
  }

  close(): void {
    this.worker.terminate();
  }
}
