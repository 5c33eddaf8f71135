import { isFormulaInput } from '../values/is-formula-input';
import { keepReferences, showReferences } from '../formula/resolve/keep-references';
import { shiftFormula } from '../formula/syntax/rewrite-references';
import type { RowId } from '../sheet/ids';
import type { Layout } from '../sheet/layout/layout-move';
import type { Sheet } from '../sheet/sheet';

interface Copy {
  readonly sheet: Sheet;
  /** Where the input stands now. */
  readonly slot: number;
  /** How far it is copied. */
  readonly by: { readonly columns: number; readonly rows: number };
  /** The sheet as it will be when the copy is in it, and the row of the copy. */
  readonly places: Layout;
  readonly row: RowId;
}

/** A copied input: relative references of a formula move along, absolute ones stay. */
export function copiedInput(input: string, { sheet, slot, by, places, row }: Copy): string {
  if (!isFormulaInput(input)) return input;
  return keepReferences(shiftFormula(showReferences(input, sheet, slot), by.columns, by.rows), sheet, { row, places });
}
