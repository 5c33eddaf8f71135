import type { Style } from '../looks/style';
import type { FieldId } from './ids';

/** A column of the sheet. Its label is the text of its cell in the header row. */
export interface Field {
  readonly id: FieldId;
  /** Fractional order key, compared by code units: fields stand in its order from left to right. */
  readonly key: string;
  readonly widthPx: number;
  /** Number format (UTS #35) of the field's numbers, or null to show them as typed. */
  readonly format: string | null;
  /** The words after a value, such as mg/L, for sentences and axes. */
  readonly unit: string | null;
  /** Ordinary formatting of its cells. */
  readonly style?: Style;
  readonly hidden?: boolean;
  /**
   * The values that are offered while typing into its records; others are not entered by hand. Any value where absent.
   */
  readonly allowed?: readonly string[];
}

/** A field with nothing said of it yet. */
export const newField = (id: FieldId, key: string, rest: Partial<Field> = {}): Field => ({
  id,
  key,
  widthPx: 120,
  format: null,
  unit: null,
  ...rest,
});
