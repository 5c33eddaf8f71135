import { Refusal } from './refusal';

/** Runs work with at most `atOnce` others. The rest wait their turn, first come first served. */
export type BoundedQueue = <T>(work: () => Promise<T>) => Promise<T>;

/** A queue of its own. Where `maxWaiting` wait already, it throws a Refusal `too-often` with the message. */
export function boundedQueue(atOnce: number, maxWaiting: number, message: string): BoundedQueue {
  let running = 0;
  const waiting: (() => void)[] = [];
  return async (work) => {
    if (running >= atOnce) {
      if (waiting.length >= maxWaiting) throw new Refusal('too-often', message);
      await new Promise<void>((resolve) => waiting.push(resolve));
    } else running++;
    try {
      return await work();
    } finally {
      const next = waiting.shift();
      if (next) next();
      else running--;
    }
  };
}
