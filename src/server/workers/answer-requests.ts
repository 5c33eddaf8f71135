import { entryOf } from '../../core/values/entry-of';
import { answerQuestion, type Questions, type Reply } from '../../protocol/channel';
import type { WorkerHandlers, WorkerRequest } from './worker-messages';

/**
 * Answers the requests of the server in a worker process: called once, there. A request that fails is answered with its
 * message.
 */
export function answerRequests<Q extends Questions>(handlers: WorkerHandlers<Q>): void {
  process.on('message', (message: WorkerRequest<Q> & { readonly id: number }) => {
    // The name pairs each request with its handler.
    const handle = entryOf<(asked: unknown) => unknown>(handlers, String(message.kind));
    void answerQuestion(message, handle, { post: send });
  });
  // The server has ended, also where it could not say so.
  process.on('disconnect', () => process.exit(0));
}

/** Sends an event to the server. */
export const sendEvent = <E>(event: E): void => send({ event });

function send<E>(reply: Reply<E>): void {
  // Where the server has ended, nobody hears it, and 'disconnect' ends us as well.
  process.send?.(reply, undefined, undefined, () => {});
}
