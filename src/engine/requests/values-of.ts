import { inOrder } from '../../core/edit/sort';
import { shownAt } from '../../core/sheet/shown-cell';
import type { Sheet } from '../../core/sheet/sheet';

/** More than anybody reads through. */
const MAX_VALUES = 1000;

/**
 * The values of a field in its records, each once, with its count, in rising order. Of more than 1,000 the most frequent.
 */
export function valuesOf(sheet: Sheet, column: number): { text: string; count: number }[] {
  if (column >= sheet.fields.length) return [];
  const found = new Map<string, { slot: number; count: number }>();
  for (const slot of sheet.order) {
    if (sheet.roleAt(slot) !== 'record') continue;
    const text = shownAt(sheet, column, slot);
    const before = found.get(text);
    if (before) before.count++;
    else found.set(text, { slot, count: 1 });
  }
  const most = [...found.values()].sort((a, b) => b.count - a.count).slice(0, MAX_VALUES);
  const slots = most.map(({ slot }) => slot);
  return inOrder(sheet, column, slots).map((slot) => {
    const text = shownAt(sheet, column, slot);
    return { text, count: found.get(text)?.count ?? 0 };
  });
}
