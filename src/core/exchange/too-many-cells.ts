import type { CellRange } from '../sheet/address';
import { inDigits } from '../values/counted';
import { BadFile } from './bad-file';
import { LIMITS } from './limits';

/** Why a file that is held whole is not read, and how its cells come in all the same. */
export const tooManyCells = (place = ''): BadFile =>
  new BadFile(
    `it holds more than ${inDigits(LIMITS.cellsHeld)} cells, too many to be read at once. Save it as CSV: of that, ${inDigits(LIMITS.cells)} are read`,
    place,
  );

/** Throws a BadFile where an area is too large for a workbook, which is put together whole before it is written. */
export function requireHeld({ left, top, right, bottom }: CellRange): void {
  if ((right - left + 1) * (bottom - top + 1) > LIMITS.cellsHeld)
    throw new BadFile(
      `A workbook takes at most ${inDigits(LIMITS.cellsHeld)} cells. Export a selection of them, or choose CSV.`,
    );
}
