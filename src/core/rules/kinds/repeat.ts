import { lazySchema } from '../../lazy-schema';
import type { FieldId } from '../../sheet/ids';
import { shownAt } from '../../sheet/shown-cell';
import type { CompileContext } from '../compile/compile-context';
import { ContentIds } from '../../values/content-ids';
import type { FoldedContents } from '../../sheet/column/folded-contents';
import { itemAt } from '../../values/item-at';
import { missingField } from '../terms';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Comparison, ConditionKind, Kernel, Invalidation } from './kind';
import type { Inputs } from '../terms';

export const MEMBERS = {
  repeated: 'is a duplicate',
  unique: 'is unique',
  first: 'is the first of several',
  again: 'has been met before',
} as const;

export interface RepeatWhen {
  readonly kind: 'repeat';
  readonly is: keyof typeof MEMBERS;
  /** Fields whose combination decides, one member a row. */
  readonly by?: readonly FieldId[];
  readonly case?: boolean;
  readonly accents?: boolean;
}

/** Values that occur several times, or once, among the cells read; or rows whose combination of fields does. */
export const repeat: ConditionKind<RepeatWhen> = {
  schema: lazySchema<RepeatWhen>((joi) =>
    joi.object<RepeatWhen>({
      kind: joi.valid('repeat').required(),
      is: joi.valid(...Object.keys(MEMBERS)).required(),
      by: joi.array().items(joi.string()).min(1),
      case: joi.boolean(),
      accents: joi.boolean(),
    }),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => (when.by ? { ...when, by: when.by.map(to.field) } : when),
  outcomeLooks: () => undefined,
  compile(when, context) {
    const columns: number[] = [];
    for (const field of when.by ?? []) {
      const column = context.sheet.findColumn(field);
      if (column === undefined) return missingField(field);
      columns.push(column);
    }
    return new RepeatKernel(when, context, columns);
  },
  sentence: (when, words) =>
    `${MEMBERS[when.is]}${when.by ? `, by ${when.by.map((field) => words.field(field)).join(' and ')}` : ''}` +
    [when.case && ', case included', when.accents && ', accents included'].filter(Boolean).join(''),
  outcomeName: () => '',
  defaults: () => ({ kind: 'repeat', is: 'repeated' }),
  thresholds: () => [],
  examples: [
    {
      says: 'texts meet whatever their case; a number is no text, and blanks never repeat',
      when: { kind: 'repeat', is: 'repeated' },
      inputs: ['a', 'A ', 'b', '', '', '7', "'7", '7.0'],
      outcomes: [0, 0, -1, -1, -1, 0, -1, 0],
    },
    {
      says: 'the first of several, and those after it',
      when: { kind: 'repeat', is: 'again' },
      inputs: ['a', 'b', 'a', 'a'],
      outcomes: [-1, -1, 0, 0],
    },
    {
      says: 'what is met once is not the first of several',
      when: { kind: 'repeat', is: 'first' },
      inputs: ['a', 'b', 'a'],
      outcomes: [0, -1, -1],
    },
  ],
};

class RepeatKernel implements Kernel {
  readonly inputs: Inputs;
  /** Of several columns, or combinations of fields; one column has ids of its own. */
  private readonly ids: ContentIds;
  /** How often each content occurs, by its id. */
  private counts = new Uint32Array(64);
  /** All members of a content, exclusive-or'd: where only one is left, that one. Made with the first edit. */
  private marks: Uint32Array | null = null;
  /** The first member, where that is asked for. */
  private readonly firsts = new Map<number, number>();
  /** By column and its own id of a content, the id here; 0 for those not seen yet. */
  private readonly known = new Map<number, Int32Array>();
  private readonly asksFirst: boolean;
  /** By column and slot, or by slot alone for combinations: the content's id, 0 for none. */
  private readonly members: Map<number, Int32Array>;

  constructor(
    private readonly when: RepeatWhen,
    private readonly context: CompileContext,
    private readonly by: readonly number[],
  ) {
    this.inputs = { sameRow: [], wholeColumns: by, cells: [] };
    this.ids = new ContentIds(when);
    this.members = new Map(this.memberColumns().map((column) => [column, new Int32Array(context.sheet.slotCount)]));
    this.asksFirst = when.is === 'first' || when.is === 'again';
    this.gather();
  }

  /** The columns whose cells are members: for combinations each row counts once, at its first cell. */
  private memberColumns(): readonly number[] {
    return this.by.length ? [-1] : this.context.cells.map(({ column }) => column);
  }

  private gather(): void {
    this.counts.fill(0);
    this.marks = null;
    this.firsts.clear();
    if (this.isOneColumn && !this.asksFirst) return this.gatherColumn();
    const { order } = this.context.sheet;
    for (let position = 0; position < order.length; position++) {
      const slot = order[position]!;
      if (this.by.length) {
        if (this.context.cells.some(({ slots }) => slots.has(slot))) this.count(-1, slot, position);
      } else
        for (const { column, slots } of this.context.cells) if (slots.has(slot)) this.count(column, slot, position);
    }
  }

  /** True where contents of one column are counted: their ids are there already. */
  private get isOneColumn(): boolean {
    return this.by.length === 0 && this.context.cells.length === 1;
  }

  /** Counts the contents of a column: a few passes over arrays. */
  private gatherColumn(): void {
    const { column, slots } = itemAt(this.context.cells, 0);
    const { slotCount } = this.context.sheet;
    const contents = this.contentsOf(column);
    const into = this.members.get(column) ?? new Int32Array(slotCount);
    // Each value that no content stands for may have an id that is not known yet.
    this.fitCounts(contents.idCount + (this.context.sheet.column(column).hasLoose ? slotCount : 0));
    contents.countIds(slots, { into, counts: this.counts });
  }

  private contentsOf(column: number): FoldedContents {
    return this.context.sheet.column(column).foldedContents(this.when);
  }

  private count(column: number, slot: number, position: number): void {
    const id = this.idAt(column, slot);
    const members = this.members.get(column);
    if (members) members[slot] = id;
    if (id <= 0) return;
    this.fitCounts(id);
    this.counts[id]!++;
    if (this.asksFirst && !this.firsts.has(id))
      this.firsts.set(id, position * this.context.sheet.fields.length + Math.max(0, column));
  }

  private fitCounts(id: number): void {
    if (id < this.counts.length) return;
    const size = Math.max(id + 1, this.counts.length * 2);
    const { counts, marks } = this;
    (this.counts = new Uint32Array(size)).set(counts);
    if (marks) (this.marks = new Uint32Array(size)).set(marks);
  }

  private marked(): Uint32Array {
    if (this.marks) return this.marks;
    const marks = new Uint32Array(this.counts.length);
    for (const [column, members] of this.members)
      for (let slot = 0; slot < members.length; slot++) toggle(marks, members[slot] ?? 0, this.markOf(column, slot));
    return (this.marks = marks);
  }

  private markOf(column: number, slot: number): number {
    return slot * this.context.sheet.fields.length + Math.max(0, column);
  }

  private memberOf(mark: number): { column: number; slot: number } {
    const width = this.context.sheet.fields.length;
    return { column: mark % width, slot: Math.floor(mark / width) };
  }

  private idAt(column: number, slot: number): number {
    if (column >= 0) return this.contentAt(column, slot);
    const parts = this.by.map((part) => this.contentAt(part, slot));
    if (parts.some((part) => part < 0) || parts.every((part) => part === 0)) return 0;
    return parts.reduce((id, part) => this.ids.with(id, part), 0);
  }

  /** The id of a cell's content: that of its column, or the one it shares with the other columns. */
  private contentAt(column: number, slot: number): number {
    const contents = this.contentsOf(column);
    const own = contents.idAt(slot);
    if (own <= 0 || this.isOneColumn) return own;
    let known = this.known.get(column);
    if (!known || own >= known.length) {
      const grown = new Int32Array(contents.idCount * 2);
      if (known) grown.set(known);
      this.known.set(column, (known = grown));
    }
    return (known[own]! ||= this.ids.of(this.context.sheet.column(column).valueAt(slot)));
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const members = this.members.get(column);
    if (members && !this.asksFirst) return this.runCounts(members, slotCount, into);
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  /** Contents met several times, or once: a count beside each content. */
  private runCounts(members: Int32Array, slotCount: number, { has: { words } }: OutcomeColumn): void {
    const { counts } = this;
    const isUnique = this.when.is === 'unique';
    for (let word = 0, slot = 0; slot < slotCount; word++) {
      let bits = 0;
      for (const end = Math.min(slot + 32, slotCount); slot < end; slot++) {
        const id = members[slot]!;
        const count = id > 0 ? counts[id]! : 0;
        bits |= Number(isUnique ? count === 1 : count > 1) << (slot & 31);
      }
      words[word] = bits;
    }
  }

  outcomeAt(column: number, slot: number): number {
    const member = this.by.length ? -1 : column;
    const id = this.members.get(member)?.[slot] ?? 0;
    if (id <= 0) return -1;
    const count = this.counts[id] ?? 0;
    switch (this.when.is) {
      case 'repeated':
        return count > 1 ? 0 : -1;
      case 'unique':
        return count === 1 ? 0 : -1;
      case 'first':
        return count > 1 && this.isFirst(id, member, slot) ? 0 : -1;
      case 'again':
        return count > 1 && !this.isFirst(id, member, slot) ? 0 : -1;
    }
  }

  private isFirst(id: number, member: number, slot: number): boolean {
    const { sheet } = this.context;
    return this.firsts.get(id) === sheet.positionOf(slot) * sheet.fields.length + Math.max(0, member);
  }

  edited(column: number, slot: number): Invalidation {
    const members = this.members.get(column);
    if (!members) return 'this-cell';
    const [before, now] = [members[slot] ?? 0, this.idAt(column, slot)];
    if (before === now) return 'this-cell';
    if (slot >= members.length) return 'recompile';
    if (now > 0) this.fitCounts(now);
    const marks = this.asksFirst ? null : this.marked();
    members[slot] = now;
    const left = before > 0 ? --this.counts[before]! : 0;
    const joined = now > 0 ? ++this.counts[now]! : 0;
    if (!marks) return this.firstsEdited({ column, slot, now }, left === 0 && joined <= 1);
    const mark = this.markOf(column, slot);
    toggle(marks, before, mark);
    toggle(marks, now, mark);
    // One other changes where it is now the only one of its content, or no longer is.
    const others: { column: number; slot: number }[] = [];
    if (left === 1) others.push(this.memberOf(marks[before] ?? 0));
    if (joined === 2) others.push(this.memberOf(((marks[now] ?? 0) ^ mark) >>> 0));
    return others;
  }

  private firstsEdited(
    { column, slot, now }: { readonly column: number; readonly slot: number; readonly now: number },
    isAlone: boolean,
  ): Invalidation {
    if (!isAlone) {
      this.gather();
      return 'every-cell';
    }
    const { sheet } = this.context;
    if (now > 0) this.firsts.set(now, sheet.positionOf(slot) * sheet.fields.length + column);
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const { sheet } = this.context;
    const id = this.members.get(this.by.length ? -1 : column)?.[slot] ?? 0;
    const parts = (this.by.length ? this.by : [column]).map((part) => shownAt(sheet, part, slot) || 'blank');
    const count = this.counts[id] ?? 0;
    return {
      left: parts.join(' + '),
      relation: MEMBERS[this.when.is],
      right: id > 0 ? `it is met ${count === 1 ? 'once' : `${count} times`}` : 'it is not counted',
      ...(id > 0 ? {} : { note: id < 0 ? 'an error never repeats' : 'a blank never repeats' }),
    };
  }
}

/** Puts a member among those of a content, or takes it out; blanks and errors have none. */
function toggle(marks: Uint32Array, id: number, mark: number): void {
  if (id > 0) marks[id]! ^= mark;
}
