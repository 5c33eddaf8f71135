import { isFormulaInput } from '../../core/values/is-formula-input';
import { showReferences } from '../../core/formula/resolve/keep-references';
import type { Sheet } from '../../core/sheet/sheet';
import type { LostCell } from '../../protocol/engine-messages';
import type { LostEntry } from './own-entries';

/** A lost entry where its cell stands now, with formulas as people see them; undefined where the cell is gone. */
export function lostCell(sheet: Sheet, { row, field, mine, theirs, by }: LostEntry): LostCell | undefined {
  const [slot, column] = [sheet.findSlot(row), sheet.findColumn(field)];
  if (slot === undefined || column === undefined) return undefined;
  const seen = (input: string): string => (isFormulaInput(input) ? showReferences(input, sheet, slot) : input);
  return { column, position: sheet.positionOf(slot), cell: { row, field }, mine: seen(mine), theirs: seen(theirs), by };
}
