import type { Sheet } from '../../sheet/sheet';
import { TAG } from '../../values/cell-value';
import type { ExampleCell } from '../propose/evidence';
import type { Proposal } from './proposal';

/** A cell that is read beside the limit of a proposal: just painted, or just not. */
export interface NearCase extends ExampleCell {
  readonly isPainted: boolean;
}

/**
 * The nearest cases on both sides of a proposal. Of numbers and dates: the last ones that are painted and the first
 * ones that are not, at the lower and at the upper end of what is painted (or of what is not, where that lies between).
 * Of anything else: the topmost cell of either sort that holds something. Cost: three passes over the field read.
 */
export function nearCases(sheet: Sheet, { idea, combination, painted }: Proposal): NearCase[] {
  const id = 'fields' in idea.reads ? idea.reads.fields[0] : undefined;
  const column = combination?.parts[0].column ?? (id === undefined ? undefined : sheet.findColumn(id));
  if (column === undefined) return [];
  const store = sheet.column(column);
  const [shown, records] = [painted.anyOf(column), sheet.slotsWithRoles(['record'])];
  const isPainted = (slot: number): boolean => shown.has(slot);
  const sides = [true, false].map((side) => ({ isPainted: side, ends: new Ends(), column }));
  let topmost: (number | undefined)[] = [undefined, undefined];
  let hasOthers = false;
  for (const slot of sheet.order) {
    if (!records.has(slot) || store.tags[slot] === TAG.blank) continue;
    const side = isPainted(slot) ? 0 : 1;
    if (topmost[side] === undefined) topmost = topmost.with(side, slot);
    const number = store.numberAt(slot);
    if (Number.isNaN(number)) hasOthers ||= side === 0;
    else sides[side]?.ends.add(number, slot);
  }
  const [own, rest] = sides;
  // Where all cells are painted there is no limit that one could be near to.
  if (topmost[1] === undefined) return [];
  if (!own || !rest || combination || hasOthers || own.ends.isEmpty || rest.ends.isEmpty)
    return topmost.flatMap((slot, side) => (slot === undefined ? [] : [{ column, slot, isPainted: side === 0 }]));
  // What lies within the other: numbers that are painted between others, or others between those that are painted.
  const [inner, outer] = own.ends.isWithin(rest.ends) ? [own, rest] : [rest, own];
  const [below, above] = [new Ends(), new Ends()];
  for (const slot of sheet.order) {
    if (!records.has(slot) || isPainted(slot) !== outer.isPainted) continue;
    const number = store.numberAt(slot);
    if (number < inner.ends.least) below.add(number, slot);
    else if (number > inner.ends.greatest) above.add(number, slot);
  }
  const cases = [
    ...(below.isEmpty ? [] : [below.greatestAt, inner.ends.leastAt]),
    ...(above.isEmpty ? [] : [inner.ends.greatestAt, above.leastAt]),
  ];
  return [...new Set(cases)].map((slot) => ({ column, slot, isPainted: isPainted(slot) }));
}

/** The least and the greatest of some numbers, and where they are. */
class Ends {
  least = Infinity;
  greatest = -Infinity;
  leastAt = -1;
  greatestAt = -1;

  get isEmpty(): boolean {
    return this.leastAt < 0;
  }

  add(number: number, slot: number): void {
    if (number < this.least) [this.least, this.leastAt] = [number, slot];
    if (number > this.greatest) [this.greatest, this.greatestAt] = [number, slot];
  }

  /** Whether they lie closer together than others. */
  isWithin(others: Ends): boolean {
    return this.least >= others.least && this.greatest <= others.greatest;
  }
}
