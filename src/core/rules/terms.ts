import type { FieldId } from '../sheet/ids';
import type { RowRole } from '../sheet/row-role';

// The terms of rules and their conditions. Lowest in this folder: they depend neither on the kinds nor on evaluation.

/**
 * A value that a condition compares with: given outright, read from a cell, calculated, or a field of the same row
 * scaled and shifted.
 */
export type Operand =
  | number
  | string
  | boolean
  | { readonly cell: string }
  /** Written for the top-left cell that is read; its relative references move along. */
  | { readonly formula: string }
  | FieldOperand;

/** Another field of the same record, multiplied and moved by an amount. */
export interface FieldOperand {
  readonly field: FieldId;
  readonly times?: number;
  readonly plus?: number;
}

/** One operand, or two, as a list. */
export const operandList = (to: Operand | readonly Operand[] | undefined): readonly Operand[] =>
  to === undefined ? [] : isList(to) ? to : [to];

/** Two operands with another one at 0 or 1. */
export const withOperand = (
  [first = 0, second = first]: readonly Operand[],
  at: number,
  operand: Operand,
): readonly [Operand, Operand] => (at === 0 ? [operand, second] : [first, operand]);

const isList = (to: Operand | readonly Operand[]): to is readonly Operand[] => Array.isArray(to);

export type Reads =
  | { readonly fields: readonly FieldId[]; readonly roles?: readonly RowRole[] }
  | { readonly cells: string };
export type Paints = 'cell' | 'record' | { readonly fields: readonly FieldId[] };

export interface Trial {
  readonly value: string | number | boolean | null;
  readonly expect: boolean | string | number | null;
}

/** How the outcome of a cell depends on others, so that an edit evaluates again only what it must. */
export interface Inputs {
  /** Columns whose cell in the same row counts. */
  readonly sameRow: readonly number[];
  /** Columns of which any cell counts. */
  readonly wholeColumns: readonly number[];
  /** Single cells that count for every outcome. */
  readonly cells: readonly { readonly column: number; readonly slot: number }[];
  /** True where the outcome may change without an edit, because the time changes. */
  readonly isTimeDependent?: boolean;
  /** True where what cells held before counts. */
  readonly needsHistory?: boolean;
}

/** How a sentence names what a condition refers to. */
export interface SentenceWords {
  operand(operand: Operand): string;
  field(id: FieldId): string;
}

/** Replacements for everything that a rule names in its sheet. */
export interface RuleReferences {
  readonly field: (field: FieldId) => FieldId;
  /** For one cell, or ranges separated by spaces. */
  readonly cells: (ranges: string) => string;
  readonly formula: (text: string) => string;
}

/** Why a rule cannot work on this sheet. It paints nothing, and the others go on. */
export interface Problem {
  readonly code:
    | 'missing-field'
    | 'bad-reach'
    | 'falling-cuts'
    | 'equal-cuts'
    | 'missing-cut'
    | 'falling-positions'
    | 'missing-position'
    | 'key-shape'
    | 'missing-snapshot'
    | 'not-in-sql'
    | 'too-much-work';
  readonly message: string;
}

export const isProblem = (value: object): value is Problem => 'code' in value && 'message' in value;

export const missingField = (name: FieldId): Problem => ({
  code: 'missing-field',
  message: `there is no field "${name}" in this sheet`,
});
