import type { SheetId } from '../core/sheet/ids';

/** The packed sheet as the server has it (see packed-sheet.ts), or as it was after a change. Throws in words for the person who asked. */
export async function fetchSheet(id: SheetId, at?: number): Promise<ArrayBuffer> {
  const response = await fetch(`/api/sheets/${encodeURIComponent(id)}/packed${at === undefined ? '' : `?at=${at}`}`);
  if (!response.ok)
    throw new Error(
      response.status === 404 ? 'There is no such sheet. It may have been removed.' : 'The sheet could not be loaded. Try again in a moment.',
    );
  return new Response(response.body!.pipeThrough(new DecompressionStream('gzip'))).arrayBuffer();
}
