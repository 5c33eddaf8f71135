import { shownAt } from '../../sheet/shown-cell';
import type { Sheet } from '../../sheet/sheet';

/** The name of a row: its first text in a field that is none of those given, or else its position. */
export function recordName(sheet: Sheet, slot: number, except: ReadonlySet<number>): string {
  for (let column = 0; column < sheet.fields.length; column++) {
    const text = except.has(column) ? '' : shownAt(sheet, column, slot);
    if (/\p{L}/u.test(text)) return text;
  }
  return `row ${sheet.positionOf(slot) + 1}`;
}
