import { parentPort } from 'node:worker_threads';
import type { Answered } from './thread';

/** Answers what a thread is asked, and takes what it is told: to be called once, in the thread. What fails is told to who asked. */
export function answerThread<Asked extends { readonly id: number }, Said = never>(
  answer: (asked: Asked) => unknown,
  take?: (said: Said) => void,
): void {
  parentPort!.on('message', (message: Asked | Said) => {
    if (!isAsked(message)) return take?.(message as Said);
    const { id } = message;
    const say = (answered: Answered) => parentPort!.postMessage(answered);
    try {
      say({ id, done: answer(message as Asked) });
    } catch (error) {
      say({ id, failed: error instanceof Error ? error.message : String(error) });
    }
  });
}

const isAsked = (message: unknown): message is { readonly id: number } => typeof message === 'object' && message !== null && 'id' in message;
