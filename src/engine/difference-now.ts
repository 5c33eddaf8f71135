import { sheetDifference, type SheetDifference } from '../core/rules/sheet-difference';
import type { Theme } from '../core/looks/first-family';
import type { SheetId } from '../core/sheet/ids';
import { unpackSheet } from '../protocol/packed-sheet';
import { fetchSheet } from './fetch-sheet';
import { Replica } from './replica';

/** What is different in a sheet as it is now from the same sheet as it was, each under its own rules and at its own moment. */
export async function differenceNow(then: Replica, id: SheetId, theme: Theme): Promise<SheetDifference> {
  const { sheet, head } = unpackSheet(await fetchSheet(id));
  const now = new Replica(sheet, head.sequence, { theme, nowMs: Date.now() });
  return sheetDifference(then.evaluation, now.evaluation);
}
