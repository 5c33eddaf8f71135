import { shownAt } from '../../core/sheet/shown-cell';
import type { Sheet } from '../../core/sheet/sheet';

/** Texts of a field that may be its widest: letters differ in width, so the longest by count are not all. */
const CANDIDATES = 40;

/** The longest texts shown in each of some fields, the header's among them. */
export function longestTexts(sheet: Sheet, left: number, right: number): string[][] {
  return sheet.columns.slice(left, right + 1).map((_, at) => {
    const longest = new Map<string, number>();
    let least = 0;
    for (const slot of sheet.order) {
      if (sheet.roleAt(slot) === 'title' || sheet.roleAt(slot) === 'note') continue;
      const text = shownAt(sheet, left + at, slot);
      if (text.length < least || longest.has(text)) continue;
      longest.set(text, text.length);
      if (longest.size <= CANDIDATES) continue;
      const [shortest] = [...longest].reduce((one, other) => (other[1] < one[1] ? other : one));
      longest.delete(shortest);
      least = Math.min(...longest.values());
    }
    return [...longest.keys()];
  });
}
