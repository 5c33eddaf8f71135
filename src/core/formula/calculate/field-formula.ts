import type { Formula } from '../run/make-formula';

/** A formula at work in a field: all cells of the field whose input is the same share it. */
export interface FieldFormula {
  readonly column: number;
  readonly code: number;
  readonly formula: Formula;
}
