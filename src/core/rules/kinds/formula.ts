import { FormulaError, SerialDate, type Scalar } from '../../formula/values/formula-value';
import { cellValueOf, valueAt } from '../../formula/run/make-formula';
import { BATCH, testBits, type Batch, type TestBits } from '../../formula/run/batches';
import { lazySchema } from '../../lazy-schema';
import { cellAddress, GONE, parseAddress } from '../../sheet/address';
import { shownAt } from '../../sheet/shown-cell';
import { shownText } from '../../values/shown-text';
import type { CompileContext } from '../compile/compile-context';
import { makeRuleFormula, type RuleFormula } from '../compile/formula-reader';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Comparison, ConditionKind, Kernel } from './kind';
import { formulaSchema } from '../compile/operand-schema';
import type { Inputs } from '../terms';

export interface FormulaWhen {
  readonly kind: 'formula';
  readonly formula: string;
  /** The cell it is written for; by default the top-left cell read. */
  readonly at?: string;
}

const atSchema = lazySchema<string>(
  (joi) =>
    joi
      .string()
      .custom((cell: string, helpers) => (cell === GONE || parseAddress(cell) ? cell : helpers.error('any.invalid'))),
  'a cell such as B2',
);

/** A formula that gives TRUE, or a number other than 0. Text, blanks and errors do not match. */
export const formula: ConditionKind<FormulaWhen> = {
  schema: lazySchema<FormulaWhen>((joi) =>
    joi.object<FormulaWhen>({
      kind: joi.valid('formula').required(),
      formula: formulaSchema(joi).required(),
      at: atSchema(joi),
    }),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => ({
    ...when,
    formula: to.formula(when.formula),
    ...(when.at === undefined ? {} : { at: to.cells(when.at) }),
  }),
  outcomeLooks: () => undefined,
  compile: (when, context) => new FormulaKernel(when, context),
  sentence: (when) => `makes ${when.formula} true${when.at ? `, written for ${when.at}` : ''}`,
  outcomeName: () => '',
  defaults: ({ lowerQuartile, numbers, firstCell = 'A2' }) => ({
    kind: 'formula',
    formula: `=${firstCell}${numbers ? `<${lowerQuartile}` : '=""'}`,
  }),
  thresholds: () => [],
  isByRecord: () => true,
  examples: [
    {
      says: 'it is written for the first cell read, and moves with each',
      when: { kind: 'formula', formula: '=MOD(A2;2)=0' },
      inputs: ['4', '5', '6', 'x'],
      outcomes: [0, -1, 0, -1],
    },
    {
      says: 'what it reads in the row before moves with each row, whether or not its column does',
      when: { kind: 'formula', formula: '=$A2>$A1' },
      inputs: ['4', '5', '5', '7'],
      outcomes: [-1, 0, -1, 0],
    },
    {
      says: 'a number other than 0 matches, text does not',
      when: { kind: 'formula', formula: '=A2' },
      inputs: ['1', '0', '-2', 'x', ''],
      outcomes: [0, -1, 0, -1, -1],
    },
  ],
};

class FormulaKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly ready: RuleFormula;

  constructor(
    private readonly when: FormulaWhen,
    private readonly context: CompileContext,
  ) {
    this.ready = makeRuleFormula(when.formula, context, when.at === undefined ? undefined : parseAddress(when.at));
    this.inputs = this.ready.inputs;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const { formula: made, placeOf } = this.ready;
    const tests = made.isUnread ? undefined : made.compiled.tests;
    if (!tests) {
      for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
      return;
    }
    const batch: Batch = { place: placeOf(column, 0), first: 0, count: 0 };
    batch.place.refs = made.bound;
    const held = testBits();
    for (; batch.first < slotCount; batch.first += BATCH) {
      batch.count = Math.min(BATCH, slotCount - batch.first);
      tests(batch, held);
      this.take(column, batch, { held, words: into.has.words });
    }
  }

  /**
   * Writes the results of a batch into the bits of a column, 32 to a word; rows that need the slow way are evaluated
   * one by one.
   */
  private take(
    column: number,
    { first, count }: Batch,
    { held: { holds, fails }, words }: { held: TestBits; words: Uint32Array },
  ): void {
    for (let word = 0; word << 5 < count; word++) {
      const rows = Math.min(32, count - (word << 5));
      const all = rows === 32 ? -1 : (1 << rows) - 1;
      let bits = holds[word]! & all;
      for (let rest = ~(holds[word]! | fails[word]!) & all; rest !== 0; rest &= rest - 1) {
        const bit = 31 - Math.clz32(rest & -rest);
        if (this.outcomeAt(column, first + (word << 5) + bit) === 0) bits |= 1 << bit;
      }
      words[(first >>> 5) + word] = bits;
    }
  }

  outcomeAt(column: number, slot: number): number {
    const { formula: made, placeOf } = this.ready;
    const place = placeOf(column, slot);
    const { test } = made.compiled;
    if (test && !made.isUnread) {
      place.refs = made.bound;
      const held = test(place);
      if (held >= 0) return held === 1 ? 0 : -1;
    }
    return isTrue(valueAt(made, place)) ? 0 : -1;
  }

  formulaValue(column: number, slot: number): Scalar {
    return valueAt(this.ready.formula, this.ready.placeOf(column, slot));
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const { sheet } = this.context;
    const value = this.formulaValue(column, slot);
    const shown = shownText(cellValueOf(value), null) || 'blank';
    const note =
      this.ready.formula.diagnostics[0]?.message ??
      (value instanceof FormulaError ? 'an error does not match' : undefined);
    return {
      left: shownAt(sheet, column, slot) || 'blank',
      relation: `by ${this.when.formula} at ${cellAddress(column, sheet.positionOf(slot))} gives`,
      right: shown,
      ...(note ? { note } : {}),
    };
  }
}

function isTrue(value: Scalar): boolean {
  return (
    value === true || (typeof value === 'number' ? value !== 0 : value instanceof SerialDate && value.serial !== 0)
  );
}
