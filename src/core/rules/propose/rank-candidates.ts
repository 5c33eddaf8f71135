import { placesOf, type RankWhen } from '../kinds/rank';
import { groupsKnown, type CellGroup } from './cell-groups';
import type { Evidence } from './evidence';
import { numberLength, perLength, testLength, type NameLengths } from './shortness';

/** Numbers and shares of places that people write. */
const USUAL_PLACES = [1, 2, 3, 5, 10, 15, 20, 25, 30, 50, 100].map((n) => ({ n }));
const USUAL_SHARES = [1, 5, 10, 20, 25, 50].map((percent) => ({ percent }));

/** Ranks that all numbers have that are wanted, and none that is not. */
export function* rankCandidates(evidence: Evidence): Iterable<RankWhen> {
  for (const { by, wanted, others } of groupsKnown(evidence))
    for (const is of ['top', 'bottom'] as const)
      for (const places of [...USUAL_PLACES, ...USUAL_SHARES]) {
        const when: RankWhen = { kind: 'rank', is, ...places, ...(by ? { per: { group: by.field } } : {}) };
        // Among the n greatest is a number of which fewer than n are greater.
        const holds = ({ number, count, above, below }: CellGroup): boolean =>
          !Number.isNaN(number) && (is === 'top' ? above : below) < placesOf(when, count);
        if (wanted.every(holds) && !others.some(holds)) yield when;
      }
}

/** The length of a rank. */
export const rankLength = ({ is, n, percent, per }: RankWhen, of: NameLengths): number =>
  testLength(is) + numberLength(n ?? percent ?? 0) + perLength(per, of);
