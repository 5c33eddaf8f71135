import type { SheetId } from '../../core/sheet/ids';
import { Refusal } from '../../server/refusal';
import { refusalText } from '../../texts/refusal-text';

/** The sheet that a route names. What cannot be an id is no sheet. */
export function sheetOf(id = ''): SheetId {
  if (!/^[\w-]{1,64}$/.test(id)) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  return id;
}
