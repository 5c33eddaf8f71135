import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';
import { findLeftOut, noteLeftOut } from '../sql/left-out';
import { refusalText } from '../../texts/refusal-text';

/** The words for readers of a sheet that is left out. */
export const TOO_COSTLY = refusalText('sheetTooMuchWork');

/** The words for its owner and editors. */
export const LEFT_OUT =
  'The server gave this sheet up: working it out took too long or too much memory. Until it is changed, fillers, viewers and programs do not get it, and findings are not kept. ' +
  'Make it lighter: smaller ranges in formulas, fewer formulas over many cells, fewer rules.';

/** How long a changed sheet stays left out after the first time, in milliseconds; twice as long each time after. */
const PAUSE_MS = 30_000;
const MAX_PAUSE_MS = 3_600_000;

/** Leaves a sheet out of the server's work, since it took too long or too much memory, until it is changed. */
export const leaveOut = (sql: Queryable, sheet: SheetId): Promise<void> => noteLeftOut(sql, sheet);

/** Whether a sheet is left out: until it is changed, and for some time after that. */
export async function isLeftOut(sql: Queryable, sheet: SheetId): Promise<boolean> {
  const left = await findLeftOut(sql, sheet);
  if (!left) return false;
  const pause = Math.min(MAX_PAUSE_MS, PAUSE_MS * 2 ** (left.times - 1));
  return left.head === left.sequence || Date.now() - left.at < pause;
}
