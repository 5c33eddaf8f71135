import type { Formula } from '../run/make-formula';

/** A formula of a field: all cells of the field with the same input share it. */
export interface FieldFormula {
  readonly column: number;
  readonly code: number;
  readonly formula: Formula;
}
