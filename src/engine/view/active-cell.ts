import type { CellPosition } from '../../core/sheet/cell-position';
import { itemAt } from '../../core/values/item-at';
import { showReferences } from '../../core/formula/resolve/keep-references';
import { traceCell } from '../../core/rules/explain/trace';
import { shownAt } from '../../core/sheet/shown-cell';
import type { ActiveCell } from '../../protocol/sheet-view';
import type { CellLock } from '../replica/cell-lock';
import type { Replica } from '../replica/replica';

/** What the page shows of the active cell; null where there is no such cell. */
export function activeCell(
  replica: Replica,
  { column, position }: CellPosition,
  lock: CellLock | null,
): ActiveCell | null {
  const { sheet, evaluation, saved } = replica;
  const slot = sheet.order[position];
  const field = sheet.fields[column];
  if (slot === undefined || !field) return null;
  return {
    column,
    position,
    row: sheet.rowId(slot),
    field: field.id,
    input: showReferences(sheet.column(column).inputAt(slot), sheet, slot),
    shown: shownAt(sheet, column, slot),
    style: sheet.styleAt(column, slot) ?? {},
    role: sheet.roleAt(slot),
    mistake: evaluation.calculation.mistakeAt(column, slot) ?? null,
    lock: lock?.lockOf(column, slot) ?? null,
    trace: traceCell(evaluation, saved, { column, slot }),
    says: replica.given
      ? replica.resolvedLook(column, slot).rules.map((name) => itemAt(replica.lookNames(), name))
      : [],
  };
}
