import { foldText } from '../values/fold-text';
import { columnLetters } from './address';
import type { FieldId } from './ids';
import type { Sheet } from './sheet';

/**
 * Finds fields by label: exactly, else as texts meet (case, accents and spaces aside); of two equal labels the first. A
 * field without a label is found by the letters of its column.
 */
export function labelIndex(sheet: Sheet): (label: string) => FieldId | undefined {
  const exact = new Map<string, FieldId>();
  const folded = new Map<string, FieldId>();
  sheet.fields.forEach((field, column) => {
    const label = sheet.labelOf(column) ?? columnLetters(column);
    if (!exact.has(label)) exact.set(label, field.id);
    if (!folded.has(foldText(label))) folded.set(foldText(label), field.id);
  });
  return (label) => exact.get(label) ?? folded.get(foldText(label));
}
