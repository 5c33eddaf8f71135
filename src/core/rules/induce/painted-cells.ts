import type { Look } from '../../looks/look';
import { BitSet } from '../../values/bit-set';
import type { RunningRule } from '../evaluate/running-rule';
import type { ExampleCell } from '../propose/evidence';

/**
 * Which cells a rule gives a look, by the cells that somebody points at: a rule that reads one field, whichever it is,
 * decides over the cells of a row there.
 */
export class PaintedCells {
  readonly count: number;
  /** The same for rules that paint the same cells in the same looks (FNV-1a over 32 bits, and the count). */
  readonly signature: string;

  private constructor(
    /** By look wanted, then by column read: the slots that get it. */
    private readonly slots: readonly ReadonlyMap<number, BitSet>[],
    /** The column that is read, where it is one. */
    private readonly only: number | undefined,
  ) {
    let [count, hash] = [0, 0x811c9dc5];
    for (const byColumn of slots)
      for (const set of byColumn.values()) {
        // Sets of the same members may have room for more, at the end.
        const end = set.words.findLastIndex((word) => word !== 0) + 1;
        for (const word of set.words.subarray(0, end)) hash = Math.imul(hash ^ (word ^ (word >>> 15)), 0x01000193);
        count += set.count();
      }
    this.count = count;
    this.signature = `${hash >>> 0} ${count}`;
  }

  static byRule(running: RunningRule, looks: readonly Look[]): PaintedCells {
    const [first, ...more] = running.read;
    const slots = looks.map((look) => slotsWith(running, looks.length > 1 ? look : undefined));
    return new PaintedCells(slots, more.length ? undefined : first?.column);
  }

  /** Of two rules with one look, each over one field: where both paint the row, or one of them does. */
  static combined(one: PaintedCells, other: PaintedCells, how: 'and' | 'or'): PaintedCells {
    const [a, b] = [one.slotsOf(0, 0).words, other.slotsOf(0, 0).words];
    const slots = new BitSet();
    slots.fit(32 * Math.max(a.length, b.length));
    const { words } = slots;
    for (let at = 0; at < words.length; at++) {
      const [left, right] = [a[at] ?? 0, b[at] ?? 0];
      words[at] = how === 'and' ? left & right : left | right;
    }
    return new PaintedCells([new Map([[0, slots]])], 0);
  }

  /** The slots whose cells in a column get a look, by its number among those wanted. */
  slotsOf(look: number, column: number): BitSet {
    return this.slots[look]?.get(this.only ?? column) ?? NO_SLOTS;
  }

  /** The slots whose cells in a column get any look. */
  anyOf(column: number): BitSet {
    const [first = NO_SLOTS, ...more] = this.slots.map((_, look) => this.slotsOf(look, column));
    if (more.length === 0) return first;
    const any = new BitSet();
    for (const slots of [first, ...more]) {
      any.fit(32 * slots.words.length);
      slots.forEach((slot) => any.set(slot, true));
    }
    return any;
  }

  /** The number of the look that a cell gets, among those wanted; -1 for none. */
  lookAt({ column, slot }: ExampleCell): number {
    return this.slots.findIndex((_, look) => this.slotsOf(look, column).has(slot));
  }
}

const NO_SLOTS = new BitSet();

/** The slots whose outcome has a look, by column; any look where none is given. */
function slotsWith(running: RunningRule, wanted: Look | undefined): Map<number, BitSet> {
  const found = new Map<number, BitSet>();
  for (const [column, { has, codes }] of running.outcomes) {
    if (!codes || wanted === undefined) {
      found.set(column, has);
      continue;
    }
    const slots = new BitSet();
    slots.fit(codes.length);
    has.forEach((slot) => {
      if (running.look(codes[slot] ?? -1) === wanted) slots.set(slot, true);
    });
    found.set(column, slots);
  }
  return found;
}
