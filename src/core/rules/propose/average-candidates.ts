import { keysOf } from '../../values/typed-keys';
import { AVERAGE_SIDES, awayOf, onSide, type AverageWhen } from '../kinds/average';
import { groupsKnown, type CellGroup } from './cell-groups';
import type { Evidence } from './evidence';
import { numberLength, perLength, testLength, type NameLengths } from './shortness';

/** Distances from the mean that people write. */
const USUAL_DEVIATIONS = [0, 1, 2, 1.5, 3, 0.5, 2.5];

/** Sides of the average on which all numbers lie that are wanted, and none that is not. */
export function* averageCandidates(evidence: Evidence): Iterable<AverageWhen> {
  for (const { by, wanted, others } of groupsKnown(evidence))
    for (const is of keysOf(AVERAGE_SIDES))
      for (const deviations of USUAL_DEVIATIONS) {
        const when: AverageWhen = {
          kind: 'average',
          is,
          ...(deviations ? { deviations } : {}),
          ...(by ? { per: { group: by.field } } : {}),
        };
        const away = awayOf(when);
        const holds = ({ number, mean, deviation }: CellGroup): boolean =>
          onSide(number, is, mean + (away === 0 ? 0 : away * deviation));
        if (wanted.every(holds) && !others.some(holds)) yield when;
      }
}

/** The length of a side of the average. */
export const averageLength = ({ is, deviations, per }: AverageWhen, of: NameLengths): number =>
  testLength(is) + (deviations ? 1 + numberLength(deviations) : 0) + perLength(per, of);
