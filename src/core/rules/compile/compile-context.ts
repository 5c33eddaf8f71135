import type { FormulaShapes } from '../../formula/run/make-formula';
import type { FormulaContext } from '../../formula/values/place';
import type { Sheet } from '../../sheet/sheet';
import type { CellHistory } from './cell-history';
import type { ReadColumn } from './reach';

/** What the rules of a sheet share. */
export interface RuleWorld {
  readonly sheet: Sheet;
  /** Clock, other sheets and named ranges, for formulas and dates. */
  readonly formulas: FormulaContext;
  readonly shapes: FormulaShapes;
  /** What cells held before, where that is known. */
  readonly history: CellHistory | null;
}

/** What a condition may ask of the sheet while it is compiled and run. */
export interface CompileContext extends RuleWorld {
  /** The cells that the rule reads. */
  readonly cells: readonly ReadColumn[];
}
