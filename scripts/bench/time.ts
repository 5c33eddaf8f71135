import { median } from './figures.mjs';

const RUNS = 9;

/** Milliseconds that some work takes once. */
export const timed = (work: () => unknown): number => {
  const began = performance.now();
  work();
  return performance.now() - began;
};

/** Median time of some work in milliseconds, after one run to warm up. */
export function time(work: () => void): number {
  work();
  return median(Array.from({ length: RUNS }, () => timed(work)));
}
