import type { Sheet } from '../../sheet/sheet';
import { TAG } from '../../values/cell-value';

/**
 * Some of the values that a rule reads: numbers from one up to another, that one left out unless it is the end, or one
 * text.
 */
export type ValuePart =
  | { readonly from: number; readonly to: number; readonly takesEnd: boolean }
  | { readonly text: string };

/** Whether a cell holds one of the values of a part. */
export function isInPart(sheet: Sheet, part: ValuePart, { column, slot }: { column: number; slot: number }): boolean {
  const store = sheet.column(column);
  if ('text' in part) return store.tags[slot] === TAG.text && store.entryAt(slot).shown.trim() === part.text;
  const number = store.numberAt(slot);
  return number >= part.from && (number < part.to || (part.takesEnd && number === part.to));
}
