import type { Position } from '../../../core/rules/compile/positions';
import type { ValueProfile } from '../../../core/stats/profile-values';

/** Where a position stands among the values; undefined where only the engine knows, as for cells and formulas. */
export function placeOnScale(position: Position, { least, greatest, percentiles }: ValueProfile): number | undefined {
  if (typeof position === 'number') return position;
  if (position === 'least') return least;
  if (position === 'greatest') return greatest;
  if ('percent' in position) return least + (position.percent / 100) * (greatest - least);
  return 'percentile' in position ? percentiles[Math.round(position.percentile)] : undefined;
}
