import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';

/**
 * Order keys for a number of new items before the one at a place. Items made at once by different people may have equal
 * keys: then the next greater one bounds.
 */
export function keysAt(items: readonly { readonly key: string }[], at: number, count: number): string[] {
  const low = items[at - 1]?.key ?? null;
  let above = at;
  while (low !== null && above < items.length && itemAt(items, above).key <= low) above++;
  return generateNKeysBetween(low, items[above]?.key ?? null, count);
}
