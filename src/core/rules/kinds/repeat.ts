import Joi from 'joi';
import { lazySchema } from '../../lazy-schema';
import type { FieldId } from '../../sheet/ids';
import { shownAt } from '../../sheet/shown-cell';
import type { CompileContext } from '../compile-context';
import { ContentIds } from '../content-ids';
import { missingField } from '../operands';
import type { OutcomeColumn } from '../outcome-column';
import type { Comparison, ConditionKind, Inputs, Kernel, Touched } from './kind';

const MEMBERS = {
  repeated: 'is met more than once',
  unique: 'is met only once',
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

/** Values that are met several times, or once, among the cells read; or rows whose combination of fields is. */
export const repeat: ConditionKind<RepeatWhen> = {
  schema: lazySchema<RepeatWhen>(() =>
    Joi.object<RepeatWhen>({
      kind: Joi.valid('repeat').required(),
      is: Joi.valid(...Object.keys(MEMBERS)).required(),
      by: Joi.array().items(Joi.string()).min(1),
      case: Joi.boolean(),
      accents: Joi.boolean(),
    }),
  ),
  outcomes: 'match',
  mapFields: (when, replace) => (when.by ? { ...when, by: when.by.map(replace) } : when),
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
    { says: 'what is met once is not the first of several', when: { kind: 'repeat', is: 'first' }, inputs: ['a', 'b', 'a'], outcomes: [0, -1, -1] },
  ],
};

class RepeatKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly ids: ContentIds;
  /** How often each content is met, and the member that is met first. */
  private counts = new Map<number, number>();
  private firsts = new Map<number, number>();
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
    this.gather();
  }

  /** The columns whose cells are members: for combinations each row counts once, at its first cell. */
  private memberColumns(): readonly number[] {
    return this.by.length ? [-1] : this.context.cells.map(({ column }) => column);
  }

  private gather(): void {
    this.counts = new Map();
    this.firsts = new Map();
    this.context.sheet.order.forEach((slot, position) => {
      const columns = this.by.length ? (this.context.cells.some(({ slots }) => slots.has(slot)) ? [-1] : []) : this.columnsReadAt(slot);
      for (const column of columns) {
        const id = this.idAt(column, slot);
        this.members.get(column)![slot] = id;
        if (id <= 0) continue;
        this.counts.set(id, (this.counts.get(id) ?? 0) + 1);
        if (!this.firsts.has(id)) this.firsts.set(id, position * this.context.sheet.fields.length + Math.max(0, column));
      }
    });
  }

  private columnsReadAt(slot: number): number[] {
    return this.context.cells.flatMap(({ column, slots }) => (slots.has(slot) ? column : []));
  }

  private idAt(column: number, slot: number): number {
    const { columns } = this.context.sheet;
    if (column >= 0) return this.ids.of(columns[column]!.valueAt(slot));
    const parts = this.by.map((part) => this.ids.of(columns[part]!.valueAt(slot)));
    if (parts.some((part) => part < 0) || parts.every((part) => part === 0)) return 0;
    return parts.reduce((id, part) => this.ids.with(id, part), 0);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const member = this.by.length ? -1 : column;
    const id = this.members.get(member)?.[slot] ?? 0;
    if (id <= 0) return -1;
    const count = this.counts.get(id)!;
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

  edited(column: number, slot: number): Touched {
    const members = this.members.get(column);
    if (!members) return 'this-cell';
    const [before, now] = [members[slot] ?? 0, this.idAt(column, slot)];
    if (before === now) return 'this-cell';
    if (slot >= members.length) return 'anew';
    members[slot] = now;
    const left = before > 0 ? this.counts.get(before)! - 1 : 0;
    const joined = now > 0 ? (this.counts.get(now) ?? 0) + 1 : 0;
    if (before > 0) this.counts.set(before, left);
    if (now > 0) this.counts.set(now, joined);
    if (this.when.is === 'first' || this.when.is === 'again') {
      if (left === 0 && joined <= 1) {
        const { sheet } = this.context;
        if (now > 0) this.firsts.set(now, sheet.positionOf(slot) * sheet.fields.length + column);
        return 'this-cell';
      }
      this.gather();
      return 'every-cell';
    }
    // Others change only where a content becomes, or is no longer, the only one.
    return left === 1 || joined === 2 ? 'every-cell' : 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const { sheet } = this.context;
    const id = this.members.get(this.by.length ? -1 : column)?.[slot] ?? 0;
    const parts = (this.by.length ? this.by : [column]).map((part) => shownAt(sheet, part, slot) || 'blank');
    const count = this.counts.get(id) ?? 0;
    return {
      left: parts.join(' + '),
      relation: MEMBERS[this.when.is],
      right: id > 0 ? `it is met ${count === 1 ? 'once' : `${count} times`}` : 'it is not counted',
      ...(id > 0 ? {} : { note: id < 0 ? 'an error never repeats' : 'a blank never repeats' }),
    };
  }
}
