import { lazySchema } from '../../lazy-schema';
import { shownAt } from '../../sheet/shown-cell';
import { TAG } from '../../values/cell-value';
import type { CompileContext } from '../compile/compile-context';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { ConditionKind, Kernel } from './kind';
import type { Inputs } from '../terms';

/** The tags of values that are in each state. */
export const STATES = {
  blank: { says: 'is blank', tags: [TAG.blank] },
  filled: { says: 'is filled', tags: [TAG.number, TAG.text, TAG.logical, TAG.date, TAG.error] },
  error: { says: 'is an error', tags: [TAG.error] },
  valid: { says: 'is filled and no error', tags: [TAG.number, TAG.text, TAG.logical, TAG.date] },
  number: { says: 'is a number', tags: [TAG.number] },
  text: { says: 'is text', tags: [TAG.text] },
  date: { says: 'is a date', tags: [TAG.date] },
  logical: { says: 'is TRUE or FALSE', tags: [TAG.logical] },
} as const satisfies Record<string, { says: string; tags: readonly number[] }>;

export interface StateWhen {
  readonly kind: 'state';
  readonly is: keyof typeof STATES;
}

/** The kind of a cell's value, or whether it has one. */
export const state: ConditionKind<StateWhen> = {
  schema: lazySchema<StateWhen>((joi) =>
    joi.object<StateWhen>({ kind: joi.valid('state').required(), is: joi.valid(...Object.keys(STATES)).required() }),
  ),
  outcomes: 'match',
  mapReferences: (when) => when,
  outcomeLooks: () => undefined,
  compile: (when, context) => new StateKernel(when, context),
  sentence: (when) => STATES[when.is].says,
  outcomeName: () => '',
  defaults: () => ({ kind: 'state', is: 'blank' }),
  thresholds: () => [],
  isByRecord: () => true,
  examples: [
    {
      says: 'blank is nothing but white space',
      when: { kind: 'state', is: 'blank' },
      inputs: ['', '  ', 'x', '0', '#N/A'],
      outcomes: [0, 0, -1, -1, -1],
    },
    {
      says: 'valid is filled and not an error',
      when: { kind: 'state', is: 'valid' },
      inputs: ['', 'x', '0', '#N/A', 'TRUE'],
      outcomes: [-1, 0, 0, -1, 0],
    },
    {
      says: 'numbers typed as text are text',
      when: { kind: 'state', is: 'text' },
      inputs: ["'12", '12', 'x', ''],
      outcomes: [0, -1, 0, -1],
    },
  ],
};

class StateKernel implements Kernel {
  readonly inputs: Inputs = { sameRow: [], wholeColumns: [], cells: [] };
  /** 1 for tags in the state. */
  private readonly wanted = new Uint8Array(8);

  constructor(
    private readonly when: StateWhen,
    private readonly context: CompileContext,
  ) {
    for (const tag of STATES[when.is].tags) this.wanted[tag] = 1;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const { tags } = this.context.sheet.column(column);
    const { wanted } = this;
    const { words } = into.has;
    for (let word = 0, slot = 0; slot < slotCount; word++) {
      let bits = 0;
      for (const end = Math.min(slot + 32, slotCount); slot < end; slot++) bits |= wanted[tags[slot]!]! << (slot & 31);
      words[word] = bits;
    }
  }

  outcomeAt(column: number, slot: number): number {
    return this.wanted[this.context.sheet.column(column).tags[slot] ?? TAG.blank]! - 1;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number) {
    const { sheet } = this.context;
    return {
      left: shownAt(sheet, column, slot) || 'blank',
      relation: STATES[this.when.is].says,
      right: `it is ${sheet.column(column).valueAt(slot).kind}`,
    };
  }
}
