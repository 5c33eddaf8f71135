import { tickStep } from 'd3-array';
import type { ValueProfile } from '../../stats/profile-values';

/** Steps that the values are cut into for choosing thresholds. */
const STEPS = 60;

/**
 * The profile with its quartiles and median at round numbers, so that thresholds begun from them are ones that a person
 * would have typed.
 */
export function sensibleProfile(profile: ValueProfile): ValueProfile {
  const { least, greatest, lowerQuartile, median, upperQuartile } = profile;
  const step = tickStep(least, greatest, STEPS);
  if (!(step > 0)) return profile;
  const round = (value: number): number => Number((Math.round(value / step) * step).toPrecision(12));
  return {
    ...profile,
    lowerQuartile: round(lowerQuartile),
    median: round(median),
    upperQuartile: round(upperQuartile),
  };
}
