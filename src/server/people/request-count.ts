import { RateLimiterMemory } from 'rate-limiter-flexible';
import { processWide } from '../process-wide';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Rate limits of one client, counted by each process of the server: requests, and in how many seconds. */
const LIMITS = {
  'sign-up': { points: 120, duration: 3600 },
  /** Coming to a sheet by a link: a class comes from one address. */
  join: { points: 600, duration: 3600 },
  /** Bytes that a filler enters. */
  entries: { points: 5_000_000, duration: 3600 },
} as const;

/** Counts a request of a client, or what it sends. Throws a Refusal where there were too many. */
export async function countRequestOf(what: keyof typeof LIMITS, client: string, points = 1): Promise<void> {
  const limiters = processWide('request-counts', () => new Map<string, RateLimiterMemory>());
  let limiter = limiters.get(what);
  if (!limiter) limiters.set(what, (limiter = new RateLimiterMemory(LIMITS[what])));
  await limiter.consume(client, points).catch(() => {
    throw new Refusal('too-often', refusalText('tooManyAttemptsFrom'));
  });
}
