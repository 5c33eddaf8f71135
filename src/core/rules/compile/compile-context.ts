import type { FormulaShapes } from '../../formula/run/make-formula';
import type { FormulaContext } from '../../formula/values/place';
import type { Sheet } from '../../sheet/sheet';
import type { CellHistory } from './cell-history';
import type { ReadColumn } from './reach';

/** The environment that the rules of a sheet share. */
export interface RuleWorld {
  readonly sheet: Sheet;
  /** Clock, other sheets and named ranges, for formulas and dates. */
  readonly formulas: FormulaContext;
  readonly shapes: FormulaShapes;
  /** The past contents of cells, where they are known. */
  readonly history: CellHistory | null;
}

/** The environment in which a condition is compiled and run. */
export interface CompileContext extends RuleWorld {
  /** The cells that the rule reads. */
  readonly cells: readonly ReadColumn[];
}
