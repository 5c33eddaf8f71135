import type { PastChange } from '../../core/rules/evaluate/cell-past';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetPast } from '../../protocol/recorded-change';
import type { Sql } from '../database';
import { readPastBefore } from '../sql/change';
import { findLogStart } from '../sql/log-start';
import { findSheet } from '../sql/sheet';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Cells in one answer, so that it stays a few megabytes. */
const MAX_CELLS = 200_000;
const BATCH = 500;

/**
 * The past contents of cells, by the changes up to a sequence: from the newest back to the making of the sheet, or as
 * far as the log or `most` cells go.
 */
export async function readPast(
  sql: Sql,
  id: SheetId,
  { until, most = MAX_CELLS }: { until: number; most?: number },
): Promise<SheetPast> {
  const sheet = await findSheet(sql, id);
  if (!sheet) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const changes: PastChange[] = [];
  let cells = 0;
  for (let before = until + 1, full = true; full;) {
    const batch = await readPastBefore(sql, id, { before, limit: BATCH });
    for (const change of batch) {
      cells += change.cells;
      if (cells > most) return { from: change.at, isWhole: false, changes: changes.toReversed() };
      changes.push({ sequence: change.sequence, at: change.at, inverse: change.inverse });
      before = change.sequence;
    }
    full = batch.length === BATCH;
  }
  const start = await findLogStart(sql, id);
  const isWhole = (start?.sequence ?? sheet.head + 1) === 1;
  return { from: isWhole ? sheet.createdAt : (start?.at ?? Date.now()), isWhole, changes: changes.toReversed() };
}
