import type { Style } from '../looks/style';
import type { FieldId, RowId, RuleId } from './ids';
import type { RowRole } from './row-role';

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

/** Every operation by its name. Each file in operations/ adds its own to this table. */
// oxlint-disable-next-line typescript/no-empty-object-type -- the files that declare it again fill it
export interface OperationTypes {}

/** One step of a change. Each has an inverse, made while it is applied. */
export type Operation = OperationTypes[keyof OperationTypes];

/**
 * A change: what travels, is recorded and can be undone. Its laws: applying a change and then the inverse that applying
 * it gave leaves the sheet as it was; a change whose id was seen before has no further effect.
 */
export interface Change {
  /** Made by the client, so that a change sent twice is taken once. */
  readonly id: string;
  readonly operations: readonly Operation[];
}
