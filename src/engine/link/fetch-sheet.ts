import { readMessage } from '../../protocol/parse-message';
import { sheetUrl } from '../../protocol/sheet-url';
import type { Theme } from '../../core/looks/first-family';
import type { Reader } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { WindowAsked } from '../../protocol/linked-table';
import { withQuery } from '../../protocol/with-query';

/** How a reader view is fetched: by a reader, or as a preview. */
export interface PaintedQuery {
  readonly theme: Theme;
  readonly as?: Reader['role'] | undefined;
}

/**
 * The packed sheet as the server has it (see packed-sheet.ts), or as it was after a change; of a linked table the rows of
 * a window. Throws in words for the
 * person who asked.
 */
export const fetchSheet = (id: SheetId, at?: number, window?: WindowAsked): Promise<ArrayBuffer> =>
  fetchUnpacked(withQuery(sheetUrl(id, 'packed'), { at, window: window && JSON.stringify(window) }));

/** The painted sheet (see painted-sheet.ts). Throws in words for the person who asked. */
export const fetchPainted = (id: SheetId, query: PaintedQuery): Promise<ArrayBuffer> =>
  fetchUnpacked(withQuery(sheetUrl(id, 'painted'), { ...query }));

async function fetchUnpacked(path: string): Promise<ArrayBuffer> {
  const response = await fetch(path);
  if (!response.ok)
    throw new Error(FAILED[response.status] ?? (response.status === 503 ? await refusalOf(response) : NOT_LOADED));
  return new Response(response.body!.pipeThrough(new DecompressionStream('gzip'))).arrayBuffer();
}

const NOT_LOADED = 'The sheet could not be loaded. Try again in a moment.';

/** Why the server cannot give it just now, in its own words. */
const refusalOf = async (response: Response): Promise<string> =>
  (await readMessage<{ refused?: string }>(response).catch(() => null))?.refused ?? NOT_LOADED;

const FAILED: Readonly<Record<number, string>> = {
  401: 'You no longer have access to this sheet: your link has expired or was deleted, or you are signed out.',
  403: 'Your role on this sheet has changed. Reload the page to continue.',
  404: 'This sheet does not exist. It may have been deleted, or you no longer have access.',
};
