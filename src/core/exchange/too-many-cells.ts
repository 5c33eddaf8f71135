import { inDigits } from '../values/counted';
import { BadFile } from './bad-file';
import { LIMITS } from './limits';

/** Why a file that is held whole is not read, and how its cells come in all the same. */
export const tooManyCells = (place = ''): BadFile =>
  new BadFile(
    `it holds more than ${inDigits(LIMITS.cellsHeld)} cells, too many to be read at once. Save it as CSV: of that, ${inDigits(LIMITS.cells)} are read`,
    place,
  );
