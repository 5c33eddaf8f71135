import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { processWide } from '../process-wide';

/** Requests of one token in a minute, counted by each process of the server. */
export const REQUESTS_A_MINUTE = 1200;

const limiter = () =>
  processWide('request-limit', () => new RateLimiterMemory({ points: REQUESTS_A_MINUTE, duration: 60 }));

export interface Allowance {
  readonly isOver: boolean;
  /** As headers tell it: RateLimit fields of the IETF's draft, and Retry-After (RFC 9110) where it is used up. */
  readonly headers: Readonly<Record<string, string>>;
}

/** Counts a request of a program. */
export async function countRequest(program: string): Promise<Allowance> {
  const limit = await limiter()
    .consume(program)
    .then(
      (left) => ({ left, isOver: false }),
      (left: RateLimiterRes) => ({ left, isOver: true }),
    );
  const seconds = String(Math.max(1, Math.ceil(limit.left.msBeforeNext / 1000)));
  const headers = {
    'ratelimit-limit': String(REQUESTS_A_MINUTE),
    'ratelimit-remaining': String(Math.max(0, limit.left.remainingPoints)),
    'ratelimit-reset': seconds,
    ...(limit.isOver ? { 'retry-after': seconds } : {}),
  };
  return { isOver: limit.isOver, headers };
}
