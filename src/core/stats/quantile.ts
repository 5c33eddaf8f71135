import { itemAt } from '../values/item-at';
/**
 * The p-quantile (0 to 1) of numbers in rising order, by linear interpolation at 1 + (N - 1) p: Hyndman and Fan (1996),
 * type 7. NaN of none.
 */
export function quantileOfSorted(sorted: ArrayLike<number>, p: number): number {
  if (sorted.length === 0) return NaN;
  const at = (sorted.length - 1) * p;
  const below = Math.floor(at);
  const low = itemAt(sorted, below);
  const high = itemAt(sorted, Math.min(below + 1, sorted.length - 1));
  return low + (high - low) * (at - below);
}
