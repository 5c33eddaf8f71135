import { TAG } from '../../values/cell-value';
import { keysOf } from '../../values/typed-keys';
import { STATES, type StateWhen } from '../kinds/state';
import type { Evidence, ExampleCell } from './evidence';
import { testLength } from './shortness';

/** States in which all cells are that are wanted, and none that is not. */
export function* stateCandidates({ sheet, yes, no }: Evidence): Iterable<StateWhen> {
  for (const is of keysOf(STATES)) {
    const tags: readonly number[] = STATES[is].tags;
    const isIn = ({ column, slot }: ExampleCell): boolean =>
      tags.includes(sheet.column(column).tags[slot] ?? TAG.blank);
    if (yes.length > 0 && yes.every(isIn) && !no.some(isIn)) yield { kind: 'state', is };
  }
}

/** The length of a test of the state. */
export const stateLength = ({ is }: StateWhen): number => testLength(is);
