import type { Rule } from '../rules/rule';
import type { FieldId, RowId, RuleId } from './ids';
import type { RowRole } from './row-role';

export interface CellInput {
  readonly row: RowId;
  readonly field: FieldId;
  readonly input: string;
}

export interface StoredRow {
  readonly id: RowId;
  /** Fractional order key (`fractional-indexing`), compared by code units. */
  readonly key: string;
  readonly role: RowRole;
  /** Inputs by field; absent is blank. */
  readonly cells: Readonly<Record<FieldId, string>>;
}

export interface StoredRule {
  readonly id: RuleId;
  /** Fractional order key: rules in its order are in order of precedence. */
  readonly key: string;
  readonly rule: Rule;
}

/** One step of a change. Each has an inverse, made while it is applied. */
export type Operation =
  | { readonly kind: 'set-cells'; readonly cells: readonly CellInput[] }
  | { readonly kind: 'insert-rows'; readonly rows: readonly StoredRow[] }
  | { readonly kind: 'remove-rows'; readonly rows: readonly RowId[] }
  | { readonly kind: 'put-rules'; readonly rules: readonly StoredRule[] }
  | { readonly kind: 'remove-rules'; readonly rules: readonly RuleId[] };

/**
 * A change: what travels, is recorded and can be undone. Its laws: applying a change and then the inverse that applying
 * it gave leaves the sheet as it was; a change whose id was seen before has no further effect.
 */
export interface Change {
  /** Made by the client, so that a change sent twice is taken once. */
  readonly id: string;
  readonly operations: readonly Operation[];
}
