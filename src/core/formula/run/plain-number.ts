import type { Column } from '../../sheet/column';
import { TAG } from '../../values/cell-value';

/** The number in a slot; 0 where there is nothing, which counts and compares as that. NaN for anything else. */
export const plainNumberIn = (store: Column, slot: number): number =>
  store.tags[slot] === TAG.number ? store.numberAt(slot) : store.isEmptyAt(slot) ? 0 : NaN;
