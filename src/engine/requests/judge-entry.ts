import { sheetUrl } from '../../protocol/sheet-url';
import type { CellIds, SheetId } from '../../core/sheet/ids';
import type { GivenLook } from '../../protocol/packed/painted-sheet';
import type { PaintedQuery } from '../link/fetch-sheet';
import { sendJson } from '../link/send-json';
import { withQuery } from '../../protocol/with-query';

/** Asks the server for the look that an entry would have; null where it does not tell, or cannot be reached. */
export async function judgeEntry(
  sheet: SheetId,
  query: PaintedQuery,
  entry: CellIds & { readonly input: string },
): Promise<GivenLook | null> {
  const sent = await sendJson<GivenLook>(withQuery(sheetUrl(sheet, 'painted/judge'), { ...query }), { body: entry });
  return 'answer' in sent ? sent.answer : null;
}
