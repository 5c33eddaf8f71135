import { sheetUrl } from '../../protocol/sheet-url';
import type { CellIds, SheetId } from '../../core/sheet/ids';
import type { GivenLook } from '../../protocol/painted-sheet';
import { paintedQuery, type PaintedQuery } from '../link/fetch-sheet';
import { sendJson } from '../link/send-json';

/** Asks the server for the look that an entry would have; null where it does not tell, or cannot be reached. */
export async function judgeEntry(
  sheet: SheetId,
  query: PaintedQuery,
  entry: CellIds & { readonly input: string },
): Promise<GivenLook | null> {
  const sent = await sendJson<GivenLook>(sheetUrl(sheet, `painted/judge?${paintedQuery(query)}`), { body: entry });
  return 'answer' in sent ? sent.answer : null;
}
