import { itemAt } from '../../values/item-at';
import type { Inputs, Problem, RuleReferences, SentenceWords } from '../terms';
import { lazySchema } from '../../lazy-schema';
import type { BitSet } from '../../values/bit-set';
import type { FieldId } from '../../sheet/ids';
import { TAG } from '../../values/cell-value';
import type { CompileContext } from './compile-context';
import { missingField } from '../terms';

/**
 * Over which numbers a statistic runs: all that are read, those of each field, or those of rows that share a field's
 * value.
 */
export type Per = 'all' | 'field' | { readonly group: FieldId };

export const perSchema = lazySchema<Per>(
  (joi) => joi.alternatives().try(joi.valid('all', 'field'), joi.object({ group: joi.string().required() })),
  '"all", "field" or { "group": label }',
);

export const mapPer = (per: Per | undefined, to: RuleReferences): { readonly per?: Per } =>
  per === undefined ? {} : { per: typeof per === 'object' ? { group: to.field(per.group) } : per };

/** "of its field", "of its Station": whose numbers a statistic runs over. */
export function perWords(per: Per | undefined, words: SentenceWords): string {
  if (typeof per === 'object') return ` of its ${words.field(per.group)}`;
  return per === 'field' ? ' of its field' : '';
}

/** Sorts the cells that a rule reads into groups, and keeps a statistic for each. */
export class Grouping<S> {
  readonly inputs: Inputs;
  readonly groups = new Map<string | number, S>();

  private constructor(
    private readonly context: CompileContext,
    private readonly per: 'all' | 'field' | number,
    private readonly make: () => S,
  ) {
    this.inputs = { sameRow: [], cells: [], wholeColumns: typeof per === 'number' ? [per] : [] };
  }

  /** A problem where the field to group by is missing. */
  static over<S>(per: Per | undefined, context: CompileContext, make: () => S): Grouping<S> | Problem {
    if (typeof per !== 'object') return new Grouping(context, per ?? 'all', make);
    const column = context.sheet.findColumn(per.group);
    return column === undefined ? missingField(per.group) : new Grouping(context, column, make);
  }

  /** True where all cells of a column are in one group. */
  get isByColumn(): boolean {
    return typeof this.per === 'string';
  }

  private keyOf(column: number, slot: number): string | number | undefined {
    if (this.per === 'all') return 0;
    if (this.per === 'field') return column;
    const group = this.context.sheet.column(this.per as number);
    const tag = group.tags[slot]!;
    return tag === TAG.blank || tag === TAG.error ? undefined : group.foldedAt(slot);
  }

  /** The statistic of a cell's group; undefined where it belongs to none, or to one without numbers so far. */
  of(column: number, slot: number): S | undefined {
    const key = this.keyOf(column, slot);
    return key === undefined ? undefined : this.groups.get(key);
  }

  /** The statistic of a cell's group, created where the group is new; undefined where the cell belongs to none. */
  claim(column: number, slot: number): S | undefined {
    const key = this.keyOf(column, slot);
    if (key === undefined) return undefined;
    let statistic = this.groups.get(key);
    if (!statistic) this.groups.set(key, (statistic = this.make()));
    return statistic;
  }

  /** The numbers of every group, for statistics over all of them at once. */
  gather(): Map<S, Float64Array<ArrayBuffer>> {
    return this.isByColumn ? this.gatherColumns() : this.gatherCells();
  }

  private gatherColumns(): Map<S, Float64Array<ArrayBuffer>> {
    const parts = new Map<S, Float64Array<ArrayBuffer>[]>();
    for (const { column, slots } of this.context.cells) {
      const members = numbersAt(this.context.sheet.column(column).numbers, slots);
      if (members.length === 0) continue;
      const statistic = this.claim(column, 0);
      if (statistic === undefined) continue;
      parts.set(statistic, [...(parts.get(statistic) ?? []), members]);
    }
    return new Map([...parts].map(([statistic, lists]) => [statistic, joined(lists)]));
  }

  private gatherCells(): Map<S, Float64Array<ArrayBuffer>> {
    const numbers = new Map<S, number[]>();
    for (const { column, slots } of this.context.cells) {
      const store = this.context.sheet.column(column);
      slots.forEach((slot) => {
        const number = store.numbers[slot]!;
        if (number !== number) return;
        const statistic = this.claim(column, slot);
        if (statistic === undefined) return;
        let list = numbers.get(statistic);
        if (!list) numbers.set(statistic, (list = []));
        list.push(number);
      });
    }
    return new Map([...numbers].map(([statistic, list]) => [statistic, Float64Array.from(list)]));
  }
}

/** The numbers of some members of a column, without NaN. */
function numbersAt(numbers: Float64Array, slots: BitSet): Float64Array<ArrayBuffer> {
  const found = new Float64Array(slots.count() + 1);
  const { words } = slots;
  let count = 0;
  for (let word = 0; word < words.length; word++) {
    const bits = words[word]!;
    if (bits === 0) continue;
    const first = word * 32;
    const end = Math.min(first + 32, numbers.length);
    for (let slot = first; slot < end; slot++) {
      const number = numbers[slot]!;
      // Written over where it does not count.
      found[count] = number;
      count += (bits >>> (slot & 31)) & Number(number === number);
    }
  }
  return found.subarray(0, count);
}

function joined(lists: readonly Float64Array<ArrayBuffer>[]): Float64Array<ArrayBuffer> {
  if (lists.length === 1) return itemAt(lists, 0);
  const all = new Float64Array(lists.reduce((sum, list) => sum + list.length, 0));
  let at = 0;
  for (const list of lists) {
    all.set(list, at);
    at += list.length;
  }
  return all;
}
