import { BitSet } from '../values/bit-set';
import { TAG, type CellValue } from '../values/cell-value';
import { isDatePattern } from '../values/dates/date-format';
import { formatValue } from '../values/format-value';
import { roundAsShown } from '../values/number-format';
import { numberText } from '../values/number-text';
import { thresholdText } from '../values/threshold-text';
import type { Sheet } from './sheet';

/** The number format set for a cell: its own, its row's or its field's. */
export const formatSet = (sheet: Sheet, column: number, slot: number): string | null =>
  sheet.column(column).styles.get(slot)?.number ?? sheet.rowFormat(slot).style?.number ?? sheet.field(column).format;

/** The number format that a cell is shown with: the one set for it, else the one its typing implies. */
export function formatAt(sheet: Sheet, column: number, slot: number): string | null {
  return formatSet(sheet, column, slot) ?? sheet.column(column).entryAt(slot).format;
}

/** Records that are looked at for the format of a field that has none of its own. */
const LOOKED_AT = 200;

/**
 * The format in which rules name numbers of a field: the field's own, or a percentage where its first number is shown
 * as one. Null for none.
 */
export function fieldFormat(sheet: Sheet, column: number): string | null {
  const own = sheet.field(column).format;
  if (own !== null) return own;
  const { tags } = sheet.column(column);
  const first = sheet.order
    .slice(0, LOOKED_AT)
    .find((slot) => tags[slot] === TAG.number && sheet.roleAt(slot) === 'record');
  const format = first === undefined ? null : formatAt(sheet, column, first);
  return format?.includes('%') ? format : null;
}

/** A number as rules name it beside the values of a field. */
export const toldNumber = (sheet: Sheet, column: number, number: number): string => {
  const format = fieldFormat(sheet, column);
  return format?.includes('%') ? thresholdText(number, format) : numberText(number);
};

/**
 * The text that a cell shows: numbers and dates by the format set for it, where it is one for them. A total of
 * percentages is one, also where these are only typed so.
 */
export function shownAt(sheet: Sheet, column: number, slot: number): string {
  const { value, shown, format } = sheet.column(column).entryAt(slot);
  const isPlainTotal = value.kind === 'number' && format === null && sheet.roleAt(slot) === 'total';
  return shownBy(formatSet(sheet, column, slot) ?? (isPlainTotal ? fieldFormat(sheet, column) : null), value) ?? shown;
}

/**
 * The slots of a column whose number may be shown in another way than the same content elsewhere: by a format of the
 * cell or its row, or as a total. Null where there are none.
 */
export function shownApart(sheet: Sheet, column: number): BitSet | null {
  const slots: number[] = [];
  for (const [slot, style] of sheet.column(column).styles) if (style.number !== undefined) slots.push(slot);
  for (const [slot, { style }] of sheet.rowsWithAbout()) if (style?.number !== undefined) slots.push(slot);
  sheet.slotsWithRoles(['total']).forEach((slot) => slots.push(slot));
  if (slots.length === 0) return null;
  const apart = new BitSet();
  apart.fit(sheet.slotCount);
  for (const slot of slots) apart.set(slot, true);
  return apart;
}

const SPACE_BEFORE_SIGN = /\s+(?=[%\p{Sc}])/gu;

/**
 * The text of a cell as rules over texts meet it: as it is shown, but with no space before the percent or currency sign
 * of a number, however it was typed.
 */
export function textAt(sheet: Sheet, column: number, slot: number): string {
  const shown = shownAt(sheet, column, slot);
  return sheet.column(column).tags[slot] === TAG.number ? shown.replace(SPACE_BEFORE_SIGN, '') : shown;
}

/** The text of a value by a number or date format; undefined where the format is not one for it. */
export function shownBy(format: string | null, value: CellValue): string | undefined {
  if (format === null || (value.kind !== 'number' && value.kind !== 'date')) return undefined;
  return isDatePattern(format) === (value.kind === 'date') ? formatValue(value, format) : undefined;
}

/** The value rounded as its number format shows it. */
export function asShown(value: CellValue, format: string | null): CellValue {
  return value.kind === 'number' ? { kind: 'number', number: roundAsShown(value.number, format) } : value;
}
