import { sheetDifference, type SheetDifference } from '../../core/rules/explain/sheet-difference';
import type { Theme } from '../../core/looks/first-family';
import type { SheetId } from '../../core/sheet/ids';
import { unpackSheet } from '../../protocol/packed/packed-sheet';
import { fetchSheet } from '../link/fetch-sheet';
import { Replica } from '../replica/replica';

/**
 * The diff between a snapshot and the sheet as it is now, or after another change: each under its own rules and at its
 * own moment.
 */
export async function differenceFrom(
  then: Replica,
  id: SheetId,
  { theme, to }: { readonly theme: Theme; readonly to: number | undefined },
): Promise<SheetDifference> {
  const { sheet, head } = unpackSheet(await fetchSheet(id, to));
  const other = new Replica(sheet, head.sequence, { theme, nowMs: head.asOf ?? Date.now() });
  return sheetDifference(then.evaluation, other.evaluation);
}
