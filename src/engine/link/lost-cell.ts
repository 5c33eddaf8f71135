import { isFormulaInput } from '../../core/values/is-formula-input';
import { showReferences } from '../../core/formula/resolve/keep-references';
import type { Sheet } from '../../core/sheet/sheet';
import type { LostCell } from '../../protocol/sheet-view';
import type { LostEntry } from './own-entries';

/** A lost entry where its cell stands now, with formulas as people see them; undefined where the cell is gone. */
export function lostCell(sheet: Sheet, { row, field, mine, theirs, by }: LostEntry): LostCell | undefined {
  const cell = sheet.findCell({ row, field });
  if (!cell) return undefined;
  const { column, slot } = cell;
  const seen = (input: string): string => (isFormulaInput(input) ? showReferences(input, sheet, slot) : input);
  return { column, position: sheet.positionOf(slot), cell: { row, field }, mine: seen(mine), theirs: seen(theirs), by };
}
