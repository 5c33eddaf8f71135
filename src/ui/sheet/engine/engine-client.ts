import { Asker, type Reply } from '../../../protocol/channel';
import type {
  AnswerOf,
  EngineQuestions,
  Event,
  Request,
  RequestName,
  RequestOf,
} from '../../../protocol/engine-messages';
import { EARLY_ID, ENGINE_SCRIPT, takeEarlyEngine } from './early-engine';

type Heard = Reply<readonly Event[]>;

/** Requests that say how the sheet is shown once it is open. */
const WITHOUT_SHEET: ReadonlySet<RequestName> = new Set(['look-at', 'use-theme', 'stop']);

/** The page's end of the engine in its worker: asks, and hears what happened. */
export class EngineClient {
  /** Done once the sheet is open. */
  readonly opening: Promise<unknown>;
  private readonly worker: Worker;
  private readonly asker: Asker<EngineQuestions, readonly Event[]>;
  private isOpen = false;

  /** Opens a sheet, or goes on with the engine that opens it already. */
  constructor(open: RequestOf<'open'>, onEvents: (events: readonly Event[]) => void) {
    const early = takeEarlyEngine(open);
    const worker = early?.worker ?? new Worker(ENGINE_SCRIPT, { type: 'module' });
    this.worker = worker;
    this.asker = new Asker((message) => worker.postMessage(message), onEvents);
    this.opening = (early ? this.asker.await(EARLY_ID) : this.asker.ask(open)).then(() => {
      this.isOpen = true;
    });
    const hear = (reply: Heard): void => this.asker.hear(reply);
    worker.onmessage = ({ data }: MessageEvent<Heard>) => hear(data);
    // After the caller has this client at hand.
    queueMicrotask(() => early?.heard.forEach(hear));
  }

  /** Parts of the screen may ask before the sheet is open: what is about its contents waits for it. */
  ask<R extends Request>(request: R): Promise<AnswerOf<R['kind']>> {
    return this.isOpen || WITHOUT_SHEET.has(request.kind)
      ? this.asker.ask(request)
      : this.opening.then(() => this.asker.ask(request));
  }

  close(): void {
    this.worker.terminate();
  }
}
