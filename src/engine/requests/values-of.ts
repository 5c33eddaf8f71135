import { shownAt } from '../../core/sheet/shown-cell';
import type { Sheet } from '../../core/sheet/sheet';

/** More than anybody reads through. */
const MAX_VALUES = 1000;

/** The values of a field in its records, each once, with its count; the most frequent first. */
export function valuesOf(sheet: Sheet, column: number): { text: string; count: number }[] {
  const counts = new Map<string, number>();
  if (column < sheet.fields.length)
    for (const slot of sheet.order) {
      if (sheet.roleAt(slot) !== 'record') continue;
      const text = shownAt(sheet, column, slot);
      counts.set(text, (counts.get(text) ?? 0) + 1);
    }
  return [...counts]
    .map(([text, count]) => ({ text, count }))
    .sort((a, b) => b.count - a.count || (a.text < b.text ? -1 : 1))
    .slice(0, MAX_VALUES);
}
