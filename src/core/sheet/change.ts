import type { Style } from '../looks/style';
import type { FieldId, PartId, RowId, RuleId } from './ids';
import type { Field } from './field';
import type { RowRole } from './row-role';
import type { SheetPart } from './sheet-part';

export interface CellInput {
  readonly row: RowId;
  readonly field: FieldId;
  readonly input: string;
  /** Where given, the cell is set only while it still holds this: for side effects of a change. */
  readonly was?: string;
}

/** The format of a row: everything besides its cells. */
export interface RowAbout {
  /** Ordinary formatting of the row, over that of its fields. */
  readonly style?: Style;
  /** Ordinary formatting of single cells, over that of the row. */
  readonly styles?: Readonly<Record<FieldId, Style>>;
  /** Absent: as high as other rows. */
  readonly heightPx?: number;
  /** How deep it stands in an outline; absent: not at all. */
  readonly level?: number;
}

export interface StoredRow {
  readonly id: RowId;
  /** Fractional order key (`fractional-indexing`), compared by code units. */
  readonly key: string;
  readonly role: RowRole;
  /** Inputs by field; absent is blank. */
  readonly cells: Readonly<Record<FieldId, string>>;
  readonly about?: RowAbout;
}

/** The part of a rule that a sheet needs. The whole is in rules/shape/stored-rule.ts. */
export interface NamedRule {
  readonly id: RuleId;
  readonly name: string;
}

export interface KeyedRule {
  readonly id: RuleId;
  /** Fractional order key: rules in its order are in order of precedence. */
  readonly key: string;
  readonly rule: NamedRule;
}

/** A change of a row: absent properties stay. Another order key moves it. */
export interface RowChange {
  readonly id: RowId;
  readonly key?: string;
  readonly role?: RowRole;
  /** Null takes it away, here and below. */
  readonly style?: Style | null;
  readonly heightPx?: number | null;
  readonly level?: number | null;
}

export interface CellStyle {
  readonly row: RowId;
  readonly field: FieldId;
  readonly style: Style | null;
}

/** One step of a change. Each has an inverse, made while it is applied. */
export type Operation =
  | { readonly kind: 'set-cells'; readonly cells: readonly CellInput[] }
  | { readonly kind: 'insert-rows'; readonly rows: readonly StoredRow[] }
  | { readonly kind: 'remove-rows'; readonly rows: readonly RowId[] }
  | { readonly kind: 'change-rows'; readonly rows: readonly RowChange[] }
  | { readonly kind: 'put-fields'; readonly fields: readonly Field[] }
  | { readonly kind: 'remove-fields'; readonly fields: readonly FieldId[] }
  | { readonly kind: 'set-styles'; readonly cells: readonly CellStyle[] }
  | { readonly kind: 'put-parts'; readonly parts: readonly SheetPart[] }
  | { readonly kind: 'remove-parts'; readonly parts: readonly PartId[] }
  | { readonly kind: 'put-rules'; readonly rules: readonly KeyedRule[] }
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
