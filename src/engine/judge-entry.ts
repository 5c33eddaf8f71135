import type { SheetId } from '../core/sheet/ids';
import type { CellIds } from '../protocol/engine-messages';
import type { GivenLook } from '../protocol/painted-sheet';
import { paintedQuery, type PaintedQuery } from './fetch-sheet';

/** Asks the server for the look that an entry would have; null where it does not tell, or cannot be reached. */
export async function judgeEntry(sheet: SheetId, query: PaintedQuery, entry: CellIds & { readonly input: string }): Promise<GivenLook | null> {
  try {
    const response = await fetch(`/api/sheets/${encodeURIComponent(sheet)}/painted/judge?${paintedQuery(query)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(entry),
    });
    return response.ok ? ((await response.json()) as GivenLook) : null;
  } catch {
    return null;
  }
}
