import type { Look } from '../looks/look';
import type { FieldId, RuleId } from '../sheet/ids';
import type { RowRole } from '../sheet/row-role';
import type { When } from './kinds/registry';

/** A value that a condition compares with: given outright, read from a cell, calculated, or a field of the same row scaled and shifted. */
export type Operand =
  | number
  | string
  | boolean
  | { readonly cell: string }
  /** Written for the top-left cell that is read; its relative references move along. */
  | { readonly formula: string }
  | { readonly field: FieldId; readonly times?: number; readonly plus?: number };

export type Reads = { readonly fields: readonly FieldId[]; readonly roles?: readonly RowRole[] } | { readonly cells: string };
export type Paints = 'cell' | 'record' | { readonly fields: readonly FieldId[] };

export interface Trial {
  readonly value: string | number | boolean | null;
  readonly expect: boolean | string | number | null;
}

/** A rule as it is kept: fields by id. Rule files give labels instead (see read-rule-set.ts). */
export interface Rule {
  readonly id: RuleId;
  readonly name: string;
  readonly on: boolean;
  readonly settles: boolean;
  readonly reads: Reads;
  readonly when: When;
  readonly paints: Paints;
  readonly look?: Look;
  /** Why it matters, and what to do about it: for readers of the legend. */
  readonly note?: string;
  /** The name of the group in which the legend shows it, with those before and after it that have the same. */
  readonly group?: string;
  readonly trials?: readonly Trial[];
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
    | 'too-much-work';
  readonly message: string;
}

export const isProblem = (value: object): value is Problem => 'code' in value && 'message' in value;
