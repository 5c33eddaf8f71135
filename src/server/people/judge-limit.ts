import { RateLimiterMemory } from 'rate-limiter-flexible';
import { processWide } from '../process-wide';

/**
 * Answers that are judged while they are typed, in ten minutes: of one person in one cell, and in all. Typing rests
 * some times in an answer, guessing hundreds.
 */
const IN_ONE_CELL = 40;
const IN_ALL = 400;
const SECONDS = 600;

const limits = () =>
  processWide('judge-limits', () => ({
    cell: new RateLimiterMemory({ keyPrefix: 'cell', points: IN_ONE_CELL, duration: SECONDS }),
    all: new RateLimiterMemory({ keyPrefix: 'all', points: IN_ALL, duration: SECONDS }),
  }));

/** Counts an answer that is judged while it is typed; false where there were so many that it is guessing. */
export async function mayJudge(
  author: string,
  sheet: string,
  { row, field }: { readonly row: string; readonly field: string },
): Promise<boolean> {
  const { cell, all } = limits();
  return Promise.all([cell.consume(`${author} ${sheet} ${row} ${field}`), all.consume(`${author} ${sheet}`)]).then(
    () => true,
    () => false,
  );
}
