import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import { TAG, type CellValue } from '../../values/cell-value';
import { asShown, formatAt, shownAt } from '../../sheet/shown-cell';
import { compareValues, magnitudeOf } from '../compile/compare-values';
import { readOperands, type OperandReader } from '../compile/operands';
import type { CompileContext } from '../compile/compile-context';
import {
  isProblem,
  type FieldOperand,
  type Inputs,
  type Operand,
  type Problem,
  operandList,
  withOperand,
} from '../terms';
import { judgeContents } from '../compile/judge-contents';
import { setOutside, setWithin } from '../compile/number-bits';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { ConditionKind, Kernel } from './kind';
import { mapOperand, operandSchema } from '../compile/operand-schema';

export const COMPARISONS = {
  '=': 'is',
  '!=': 'is not',
  '<': 'is below',
  '<=': 'is at most',
  '>': 'is above',
  '>=': 'is at least',
  between: 'is between',
  outside: 'is outside',
} as const;
export type ComparisonName = keyof typeof COMPARISONS;

export interface CompareWhen {
  readonly kind: 'compare';
  readonly is: ComparisonName;
  readonly to: Operand | readonly [Operand, Operand];
  readonly asShown?: boolean;
  readonly magnitude?: boolean;
}

export const takesTwo = (is: ComparisonName): is is 'between' | 'outside' => is === 'between' || is === 'outside';

/** The operands of a comparison, one or two. */
export const operandsOf = ({ to }: CompareWhen): readonly Operand[] => operandList(to);

/** The cell's value against one operand, or a low and a high one. Types never cross, and a blank never matches. */
export const compare: ConditionKind<CompareWhen> = {
  schema: lazySchema<CompareWhen>((joi) =>
    joi.object<CompareWhen>({
      kind: joi.valid('compare').required(),
      is: joi.valid(...Object.keys(COMPARISONS)).required(),
      to: joi.when('is', {
        is: joi.valid('between', 'outside'),
        then: joi
          .array()
          .items(operandSchema(['number', 'string', 'boolean'])(joi))
          .length(2)
          .required(),
        otherwise: operandSchema(['number', 'string', 'boolean'])(joi).required(),
      }),
      asShown: joi.boolean(),
      magnitude: joi.boolean(),
    }),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => {
    const mapped = operandsOf(when).map((operand) => mapOperand(operand, to));
    return { ...when, to: takesTwo(when.is) ? [itemAt(mapped, 0), itemAt(mapped, 1)] : itemAt(mapped, 0) };
  },
  outcomeLooks: () => undefined,
  compile(when, context) {
    const operands = readOperands(operandsOf(when), context);
    return isProblem(operands) ? operands : new CompareKernel(when, context, operands);
  },
  sentence(when, words) {
    const sides = operandsOf(when).map((operand) => words.operand(operand));
    return [
      `${COMPARISONS[when.is]} ${sides.join(' and ')}`,
      when.magnitude && 'in magnitude',
      when.asShown && 'as shown',
    ]
      .filter(Boolean)
      .join(', ');
  },
  outcomeName: () => '',
  defaults({ numbers, lowerQuartile, commonText }) {
    if (numbers === 0 && commonText !== null) return { kind: 'compare', is: '=', to: commonText };
    return { kind: 'compare', is: '<', to: numbers ? lowerQuartile : 0 };
  },
  thresholds(when) {
    const operands = operandsOf(when);
    return operands.flatMap((operand, at) => {
      if (typeof operand !== 'number') return [];
      return [
        {
          value: operand,
          with: (value: number) => ({
            ...when,
            to: takesTwo(when.is) ? withOperand(operands, at, value) : value,
          }),
        },
      ];
    });
  },
  isByRecord: () => true,
  examples: [
    {
      says: 'a pass mark of 70: 69.9 is below, 70 is not, text and blanks never are',
      when: { kind: 'compare', is: '<', to: 70 },
      inputs: ['69.9', '70', '', 'absent', '-5'],
      outcomes: [0, -1, -1, -1, 0],
    },
    {
      says: 'between takes both ends, given in any order',
      when: { kind: 'compare', is: 'between', to: [700, 500] },
      inputs: ['499.9', '500', '700', '700.1', '600 kg'],
      outcomes: [-1, 0, 0, -1, -1],
    },
    {
      says: 'not equal needs a value of the same type',
      when: { kind: 'compare', is: '!=', to: 'Done' },
      inputs: ['done', ' DONE ', 'open', '', '7'],
      outcomes: [-1, -1, 0, -1, -1],
    },
  ],
};

class CompareKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly readers: readonly OperandReader[];
  private readonly constant: boolean;

  constructor(
    private readonly when: CompareWhen,
    private readonly context: CompileContext,
    operands: Exclude<ReturnType<typeof readOperands>, Problem>,
  ) {
    this.inputs = operands.inputs;
    this.readers = operands.readers;
    this.constant = this.readers.every((reader) => reader.constant);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const bounds = this.constant && !this.when.asShown ? numberBounds(this.when, this.readers) : undefined;
    const beside = operandsOf(this.when)[0];
    if (bounds) this.runNumbers(column, slotCount, { bounds, words: into.has.words });
    else if (this.readers.length === 1 && typeof beside === 'object' && 'field' in beside)
      this.runBeside(column, slotCount, { beside, into });
    else if (this.constant)
      judgeContents({ sheet: this.context.sheet, column }, slotCount, {
        into,
        judge: (slot) => this.outcomeAt(column, slot),
      });
    else for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  /** The tight loop. Dates have serial numbers, but are not compared with numbers. */
  private runNumbers(
    column: number,
    slotCount: number,
    { bounds, words }: { bounds: NumberBounds; words: Uint32Array },
  ): void {
    const { numbers: held, tags, hasDates } = this.context.sheet.column(column);
    const { low, high, inside, magnitude } = bounds;
    const numbers = magnitude ? held.map(Math.abs) : held;
    if (inside) setWithin(numbers, slotCount, { low, high, words });
    else setOutside(numbers, slotCount, { low, high, words });
    if (!hasDates) return;
    for (let slot = 0; slot < slotCount; slot++)
      if (tags[slot] !== TAG.number) words[slot >>> 5]! &= ~(1 << (slot & 31));
  }

  /**
   * Numbers beside those of another field: their differences held against 0, which has the same sign as comparing them.
   * Cells with anything else are compared one by one, as are all where there are dates.
   */
  private runBeside(
    column: number,
    slotCount: number,
    { beside, into }: { readonly beside: FieldOperand; readonly into: OutcomeColumn },
  ): void {
    const { sheet } = this.context;
    const [own, other] = [sheet.column(column), sheet.column(sheet.findColumn(beside.field) ?? column)];
    const isPlain = !own.hasDates && !other.hasDates && !this.when.magnitude && !this.when.asShown;
    if (isPlain) {
      const { times = 1, plus = 0 } = beside;
      const [numbers, others] = [own.numbers, other.numbers];
      const differences = new Float64Array(slotCount);
      for (let slot = 0; slot < slotCount; slot++) differences[slot] = numbers[slot]! - (others[slot]! * times + plus);
      const { low, high, inside } = intervalOf(this.when.is, 0, 0);
      if (inside) setWithin(differences, slotCount, { low, high, words: into.has.words });
      else setOutside(differences, slotCount, { low, high, words: into.has.words });
    }
    const first = isPlain ? TAG.number : TAG.blank;
    for (let slot = 0; slot < slotCount; slot++)
      if ((own.tags[slot] ?? 0) > first && (other.tags[slot] ?? 0) > first)
        into.put(slot, this.outcomeAt(column, slot));
      else if (!isPlain) into.put(slot, -1);
  }

  outcomeAt(column: number, slot: number): number {
    const { is, magnitude } = this.when;
    const value = this.prepared(this.context.sheet.column(column).valueAt(slot), column, slot);
    const signs = this.readers.map((reader) =>
      compareValues(value, magnitude ? magnitudeOf(reader.valueAt(slot, column)) : reader.valueAt(slot, column)),
    );
    return holds(is, signs) ? 0 : -1;
  }

  private prepared(value: CellValue, column: number, slot: number): CellValue {
    const rounded = this.when.asShown ? asShown(value, formatAt(this.context.sheet, column, slot)) : value;
    return this.when.magnitude ? magnitudeOf(rounded) : rounded;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number) {
    const { sheet } = this.context;
    const value = sheet.column(column).valueAt(slot);
    const operands = this.readers.map((reader) => reader.valueAt(slot, column));
    const crossed = operands.some((operand) => Number.isNaN(compareValues(value, operand)));
    const [nothing] = this.readers.flatMap((reader) => reader.whyNothing?.(slot) ?? []);
    const note =
      value.kind === 'blank'
        ? 'a blank is never compared'
        : nothing !== undefined
          ? nothing
          : crossed
            ? `${VALUE_WORDS[value.kind]} against ${operands.map((operand) => VALUE_WORDS[operand.kind]).join(' and ')}: not compared`
            : undefined;
    return {
      left: shownAt(sheet, column, slot) || 'blank',
      relation: COMPARISONS[this.when.is],
      right: this.readers.map((reader) => reader.shownAt(slot, column)).join(' and '),
      ...(note ? { note } : {}),
    };
  }
}

const VALUE_WORDS: Record<CellValue['kind'], string> = {
  blank: 'a blank',
  number: 'a number',
  text: 'a text',
  logical: 'a logical',
  date: 'a date',
  error: 'an error',
};

function holds(is: ComparisonName, [sign = NaN, second = NaN]: readonly number[]): boolean {
  switch (is) {
    case '=':
      return sign === 0;
    case '!=':
      return sign < 0 || sign > 0;
    case '<':
      return sign < 0;
    case '<=':
      return sign <= 0;
    case '>':
      return sign > 0;
    case '>=':
      return sign >= 0;
    case 'between':
    case 'outside': {
      if (Number.isNaN(sign) || Number.isNaN(second)) return false;
      const within = (sign >= 0 && second <= 0) || (sign <= 0 && second >= 0);
      return within === (is === 'between');
    }
  }
}

interface NumberBounds {
  readonly low: number;
  readonly high: number;
  /** Within low..high, both included, or beyond them. */
  readonly inside: boolean;
  readonly magnitude: boolean;
}

/**
 * A comparison of numbers as one interval. `<` becomes "at most the double just below", which is the same set of
 * doubles.
 */
function numberBounds(when: CompareWhen, readers: readonly OperandReader[]): NumberBounds | undefined {
  const ends: number[] = [];
  for (const reader of readers) {
    const value = reader.valueAt(0);
    if (value.kind !== 'number') return undefined;
    ends.push(when.magnitude ? Math.abs(value.number) : value.number);
  }
  const interval = intervalOf(when.is, Math.min(...ends), Math.max(...ends));
  return { ...interval, magnitude: when.magnitude === true };
}

/** The numbers for which a comparison with one or two others holds, as an interval or what is outside of it. */
function intervalOf(is: ComparisonName, low: number, high: number): Omit<NumberBounds, 'magnitude'> {
  switch (is) {
    case '=':
    case 'between':
      return { low, high, inside: true };
    case '!=':
    case 'outside':
      return { low, high, inside: false };
    case '<=':
      return { low: -Infinity, high, inside: true };
    case '>=':
      return { low, high: Infinity, inside: true };
    case '<':
      return { low, high: Infinity, inside: false };
    case '>':
      return { low: -Infinity, high, inside: false };
  }
}
