import type { Queryable } from '../database';
import { Refusal } from '../refusal';
import { countOwned } from '../sql/member';
import { refusalText } from '../../texts/refusal-text';

/** Sheets that one account may own. */
const MAX_SHEETS = 500;

/** Throws a Refusal where an account owns as many sheets as it may. */
export async function requireRoomForSheet(sql: Queryable, person: string): Promise<void> {
  if ((await countOwned(sql, person)) >= MAX_SHEETS)
    throw new Refusal('not-allowed', refusalText('accountHasMostMaxSheets', { maxSheets: MAX_SHEETS }));
}
