import { TAG, type CellValue } from '../values/cell-value';
import { roundAsShown } from '../values/number-format';
import { shownText } from '../values/shown-text';
import type { Sheet } from './sheet';

/** The number format that a cell is shown with: the field's, else the one its typing implies. */
export function formatAt(sheet: Sheet, column: number, slot: number): string | null {
  return sheet.fields[column]!.format ?? sheet.columns[column]!.entryAt(slot).format;
}

/** The text that a cell shows. */
export function shownAt(sheet: Sheet, column: number, slot: number): string {
  const format = sheet.fields[column]!.format;
  const entry = sheet.columns[column]!.entryAt(slot);
  return format !== null && sheet.columns[column]!.tags[slot] === TAG.number ? shownText(entry.value, format) : entry.shown;
}

/** The value rounded as its number format shows it. */
export function asShown(value: CellValue, format: string | null): CellValue {
  return value.kind === 'number' ? { kind: 'number', number: roundAsShown(value.number, format) } : value;
}
