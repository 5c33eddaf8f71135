import type { WorkerReply, WorkerRequest, WorkerRequests } from './worker-messages';

/**
 * Answers the requests of the server in a worker process: called once, there. A request that fails is answered with its
 * message.
 */
export function answerRequests<Q extends WorkerRequests>(answer: (request: WorkerRequest<Q>) => unknown): void {
  process.on('message', (request: WorkerRequest<Q>) => {
    const { id } = request;
    try {
      send({ id, done: answer(request) });
    } catch (error) {
      send({ id, failed: error instanceof Error ? error.message : String(error) });
    }
  });
  // The server has ended, also where it could not say so.
  process.on('disconnect', () => process.exit(0));
}

/** Sends an event to the server. */
export const sendEvent = <Event>(event: Event): void => send({ event });

function send<Event>(reply: WorkerReply<Event>): void {
  process.send?.(reply);
}
