import type { CellRange } from '../../sheet/address';
import { formatSet } from '../../sheet/shown-cell';
import { ExactSum } from '../../stats/exact-sum';
import { showsAt } from '../evaluate/shows-at';
import type { Evaluation } from '../evaluate/evaluation';

/** A summary of some cells. */
export interface AreaMeasures {
  readonly filled: number;
  readonly numbers: number;
  readonly distinct: number;
  /** Null where there are no numbers. */
  readonly sum: number | null;
  readonly average: number | null;
  readonly least: number | null;
  readonly greatest: number | null;
  /** Number format that was set for the first number; null where it is shown as typed. */
  readonly format: string | null;
  /** Rules that give cells there a look, most cells first. */
  readonly painted: readonly { readonly rule: string; readonly name: string; readonly cells: number }[];
}

/**
 * Measures some areas: one pass over their cells, about 50 ms for 1,000,000 numbers. A cell that lies in several counts
 * once.
 */
export function measureAreas({ sheet, activeRules }: Evaluation, areas: readonly CellRange[]): AreaMeasures {
  const sum = new ExactSum();
  const contents = new Set<string | number>();
  let [filled, numbers, least, greatest] = [0, 0, Infinity, -Infinity];
  let format: string | null = null;
  const spans = spansOf(areas, sheet.order);
  for (const { column, slots } of spans) {
    const store = sheet.column(column);
    for (const slot of slots) {
      const value = store.valueAt(slot);
      if (value.kind === 'blank') continue;
      filled++;
      if (value.kind !== 'number') {
        contents.add(store.foldedAt(slot));
        continue;
      }
      if (numbers++ === 0) format = formatSet(sheet, column, slot);
      contents.add(value.number);
      sum.add(value.number);
      least = Math.min(least, value.number);
      greatest = Math.max(greatest, value.number);
    }
  }
  const painted = activeRules
    .map((rule) => {
      let cells = 0;
      for (const { column, slots } of rule.works ? spans : []) {
        if (!rule.painted.has(column)) continue;
        for (const slot of slots) if (showsAt(rule, column, slot)) cells++;
      }
      return { rule: rule.rule.id, name: rule.rule.name, cells };
    })
    .filter(({ cells }) => cells > 0)
    .sort((a, b) => b.cells - a.cells);
  const some = numbers > 0;
  return {
    filled,
    numbers,
    distinct: contents.size,
    sum: some ? sum.rounded() : null,
    average: some ? sum.rounded() / numbers : null,
    least: some ? least : null,
    greatest: some ? greatest : null,
    format,
    painted,
  };
}

/** The cells of some areas, each once, by column. */
function spansOf(
  areas: readonly CellRange[],
  order: readonly number[] | Int32Array,
): { column: number; slots: Iterable<number> }[] {
  const [only] = areas;
  if (only && areas.length === 1) {
    const slots = order.slice(only.top, only.bottom + 1);
    return Array.from({ length: only.right - only.left + 1 }, (_, at) => ({ column: only.left + at, slots }));
  }
  const columns = new Map<number, Set<number>>();
  for (const { left, right, top, bottom } of areas) {
    for (let column = left; column <= right; column++) {
      const slots = columns.get(column) ?? new Set<number>();
      columns.set(column, slots);
      for (const slot of order.slice(top, bottom + 1)) slots.add(slot);
    }
  }
  return [...columns].map(([column, slots]) => ({ column, slots }));
}
