import type { CellRange } from '../sheet/address';
import { formatSet } from '../sheet/shown-cell';
import { ExactSum } from '../stats/exact-sum';
import { decidingOutcome, sourcesOf } from './resolver';
import type { Evaluation } from './evaluation';

/** What there is in some cells. */
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

/** Measures an area: one pass over its cells, about 50 ms for 1,000,000 numbers. */
export function measureArea({ sheet, running }: Evaluation, area: CellRange): AreaMeasures {
  const sum = new ExactSum();
  const contents = new Set<string | number>();
  let [filled, numbers, least, greatest] = [0, 0, Infinity, -Infinity];
  let format: string | null = null;
  const slots = sheet.order.slice(area.top, area.bottom + 1);
  for (let column = area.left; column <= area.right; column++) {
    const store = sheet.columns[column]!;
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
  const painted = running
    .map((rule) => {
      let cells = 0;
      for (let column = area.left; rule.works && column <= area.right; column++) {
        if (!rule.painted.has(column)) continue;
        const sources = sourcesOf(rule, column);
        for (const slot of slots) {
          const { outcome } = decidingOutcome(rule, sources, slot);
          if (outcome >= 0 && rule.look(outcome) !== null) cells++;
        }
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
