import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { unzipPacked } from '../../src/server/sheets/unzip-packed';

/** The ids of the rows of a packed sheet as the server sends it, top to bottom. */
export function packedRows(packed: Uint8Array): string[] {
  const { sheet } = unpackSheet(unzipPacked(packed));
  return sheet.order.map((slot) => sheet.rowId(slot));
}
