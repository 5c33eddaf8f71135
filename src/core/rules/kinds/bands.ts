import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import { TAG } from '../../values/cell-value';
import { lookSchema } from '../../looks/look-schema';
import type { Look } from '../../looks/look';
import { asShown, formatAt, shownAt } from '../../sheet/shown-cell';
import { readOperands, type OperandReader } from '../compile/operands';
import type { CompileContext } from '../compile/compile-context';
import { isProblem, type Inputs, type Operand, type Problem, type SentenceWords } from '../terms';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { ConditionKind, Kernel } from './kind';
import { mapOperand, operandSchema } from '../compile/operand-schema';

export interface BandsWhen {
  readonly kind: 'bands';
  /** Rising cut points: one band fewer than looks. */
  readonly cuts: readonly Operand[];
  /**
   * Which band a number at a cut belongs to, for all cuts or for each: `lower` makes the cut the lower edge of the band
   * above it (default).
   */
  readonly edge?: Edge | readonly Edge[];
  readonly looks: readonly (Look | null)[];
  readonly names?: readonly string[];
  readonly asShown?: boolean;
  /** True where the size of a number counts, whatever its sign. */
  readonly magnitude?: boolean;
}

type Edge = 'lower' | 'upper';

/** The edge that a cut is. */
export const edgeOf = ({ edge = 'lower' }: Pick<BandsWhen, 'edge'>, cut: number): Edge =>
  typeof edge === 'string' ? edge : itemAt(edge, cut);

/** Numbers sorted into bands by cut points in order, so that there are no gaps and no overlaps. */
export const bands: ConditionKind<BandsWhen> = {
  schema: lazySchema<BandsWhen>((joi) =>
    joi
      .object<BandsWhen>({
        kind: joi.valid('bands').required(),
        cuts: joi
          .array()
          .items(operandSchema(['number', 'string'])(joi))
          .min(1)
          .required(),
        edge: joi
          .alternatives()
          .try(joi.valid('lower', 'upper'), joi.array().items(joi.valid('lower', 'upper')).min(1)),
        looks: joi.array().items(lookSchema(joi).allow(null)).required(),
        names: joi.array().items(joi.string().allow('')),
        asShown: joi.boolean(),
        magnitude: joi.boolean(),
      })
      .custom((when: BandsWhen, helpers) => {
        const wanted = when.cuts.length + 1;
        if (when.looks.length !== wanted)
          return helpers.message({ custom: `{{#label}}.looks must have ${wanted} entries, one more than "cuts"` });
        if (when.names && when.names.length !== wanted)
          return helpers.message({ custom: `{{#label}}.names must have ${wanted} entries, one more than "cuts"` });
        if (Array.isArray(when.edge) && when.edge.length !== when.cuts.length)
          return helpers.message({ custom: `{{#label}}.edge must have ${when.cuts.length} entries, one for each cut` });
        return when;
      }),
  ),
  outcomes: 'several',
  mapReferences: (when, to) => ({ ...when, cuts: when.cuts.map((cut) => mapOperand(cut, to)) }),
  outcomeLooks: (when) => when.looks,
  compile(when, context) {
    const operands = readOperands(when.cuts, context);
    if (isProblem(operands)) return operands;
    const problem = checkCuts(when.cuts, operands.readers);
    return problem ?? new BandsKernel(when, context, operands);
  },
  sentence: (when, words) =>
    `is ${when.magnitude ? 'by size ' : ''}in one of ${when.looks.length} bands, cut at ${when.cuts.map((cut) => words.operand(cut)).join(', ')}`,
  outcomeName(when, outcome, words) {
    return when.names?.[outcome] || bandRange(when, outcome, words);
  },
  defaults: ({ numbers, lowerQuartile, upperQuartile }) => ({
    kind: 'bands',
    cuts: numbers && lowerQuartile < upperQuartile ? [lowerQuartile, upperQuartile] : [0, 1],
    looks: bandLooks(3),
  }),
  thresholds: (when) =>
    when.cuts.flatMap((cut, at) =>
      typeof cut === 'number'
        ? [{ value: cut, with: (value: number) => ({ ...when, cuts: when.cuts.with(at, value) }) }]
        : [],
    ),
  isByRecord: () => true,
  examples: [
    {
      says: 'shares under 5 %, 5 % to under 10 %, 10 % and over leave no gap',
      when: { kind: 'bands', cuts: [0.05, 0.1], looks: [null, null, null] },
      inputs: ['0.0499', '0.04995', '0.05', '0.0999', '10%', ''],
      outcomes: [0, 0, 1, 1, 2, -1],
    },
    {
      says: 'with the upper edge a cut belongs to the band below it',
      when: { kind: 'bands', cuts: [10], edge: 'upper', looks: [null, null] },
      inputs: ['10', '10.1', 'x'],
      outcomes: [0, 1, -1],
    },
    {
      says: 'each cut may be an edge of its own',
      when: { kind: 'bands', cuts: [5, 10], edge: ['lower', 'upper'], looks: [null, null, null] },
      inputs: ['4.9', '5', '10', '10.1'],
      outcomes: [0, 1, 1, 2],
    },
    {
      says: 'by size the sign does not count',
      when: { kind: 'bands', cuts: [5, 10], magnitude: true, looks: [null, null, null] },
      inputs: ['-4', '-5', '7', '-12', 'x'],
      outcomes: [0, 1, 1, 2, -1],
    },
  ],
};

/** From low to high: each differs from the others in more than its hue (WCAG 2.2, success criterion 1.4.1). */
const LOOKS: readonly Look[] = [
  { look: 'cool', italic: true },
  { look: 'clear' },
  { look: 'watch', bold: true },
  { look: 'alarm', underline: true },
  { look: 'plum', bold: true, italic: true },
  { look: 'ink' },
];
const TWO_LOOKS: readonly Look[] = [{ look: 'cool' }, { look: 'watch', bold: true }];

/** Looks that are proposed for bands, from low to high; no band is without one. */
export function bandLooks(count: number): Look[] {
  const looks = count === 2 ? TWO_LOOKS : LOOKS;
  return Array.from({ length: count }, (_, at) => itemAt(looks, at % looks.length));
}

/**
 * A band in words: "under 5", "5 to under 10", "10 and over"; with upper edges "5 and under", "over 5 to 10", "over
 * 10".
 */
function bandRange(when: BandsWhen, band: number, words: SentenceWords): string {
  const { cuts } = when;
  const low = band > 0 ? words.operand(itemAt(cuts, band - 1)) : undefined;
  const high = band < cuts.length ? words.operand(itemAt(cuts, band)) : undefined;
  const isBelow = high !== undefined && edgeOf(when, band) === 'lower';
  if (low === undefined) return isBelow ? `under ${high}` : `${high} and under`;
  const isFrom = edgeOf(when, band - 1) === 'lower';
  if (high === undefined) return isFrom ? `${low} and over` : `over ${low}`;
  return `${isFrom ? low : `over ${low}`} to ${isBelow ? `under ${high}` : high}`;
}

/** Cuts that do not depend on the row must be numbers that rise. */
function checkCuts(cuts: readonly Operand[], readers: readonly OperandReader[]): Problem | undefined {
  let last = -Infinity;
  for (const [at, reader] of readers.entries()) {
    if (!reader.constant) continue;
    const value = cutNumber(reader, 0);
    const shown = typeof cuts[at] === 'object' ? reader.shownAt(0) : String(cuts[at]);
    if (Number.isNaN(value)) return { code: 'missing-cut', message: `cut ${at + 1} is not a number: ${shown}` };
    if (value < last)
      return {
        code: 'falling-cuts',
        message: `cuts must rise, and cut ${at + 1} (${shown}) is lower than the one before it`,
      };
    if (value === last)
      return { code: 'equal-cuts', message: `cuts must rise, and cut ${at + 1} (${shown}) equals the one before it` };
    last = value;
  }
  return undefined;
}

function cutNumber(reader: OperandReader, slot: number, column?: number): number {
  const value = reader.valueAt(slot, column);
  return value.kind === 'number' ? value.number : NaN;
}

class BandsKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly readers: readonly OperandReader[];
  private readonly fixed: Float64Array | null;
  /** Of each cut, whether a number at it belongs to the band above. */
  private readonly isLower: readonly boolean[];

  constructor(
    private readonly when: BandsWhen,
    private readonly context: CompileContext,
    operands: Exclude<ReturnType<typeof readOperands>, Problem>,
  ) {
    this.inputs = operands.inputs;
    this.readers = operands.readers;
    this.isLower = when.cuts.map((_, cut) => edgeOf(when, cut) === 'lower');
    this.fixed = this.readers.every((reader) => reader.constant)
      ? Float64Array.from(this.readers, (reader) => cutNumber(reader, 0))
      : null;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const { sheet } = this.context;
    const store = sheet.column(column);
    if (store.tags[slot] !== TAG.number) return -1;
    const number = this.when.asShown ? roundedAt(this.context, column, slot) : store.numberAt(slot);
    const cuts = this.fixed ?? this.cutsAt(column, slot);
    return cuts ? this.bandOf(this.when.magnitude ? Math.abs(number) : number, cuts) : -1;
  }

  private bandOf(number: number, cuts: Float64Array): number {
    let band = 0;
    while (band < cuts.length && (this.isLower[band]! ? number >= cuts[band]! : number > cuts[band]!)) band++;
    return band;
  }

  /** The cuts beside a row, or undefined where one is not a number or they fall. */
  private cutsAt(column: number, slot: number): Float64Array | undefined {
    const cuts = Float64Array.from(this.readers, (reader) => cutNumber(reader, slot, column));
    return cuts.every((cut, at) => cut >= (at > 0 ? cuts[at - 1]! : -Infinity)) ? cuts : undefined;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(outcome: number): Look | null {
    return this.when.looks[outcome] ?? null;
  }

  explain(column: number, slot: number) {
    const outcome = this.outcomeAt(column, slot);
    const words: SentenceWords = {
      operand: (operand) => itemAt(this.readers, this.when.cuts.indexOf(operand)).shownAt(slot, column),
      field: String,
    };
    const isNumber = this.context.sheet.column(column).tags[slot] === TAG.number;
    return {
      left: shownAt(this.context.sheet, column, slot) || 'blank',
      relation: outcome < 0 ? 'is in none of' : 'is in',
      right:
        outcome < 0
          ? `the ${this.when.looks.length} bands`
          : `band ${outcome + 1} of ${this.when.looks.length}: ${bandRange(this.when, outcome, words)}`,
      ...(isNumber ? {} : { note: 'only numbers have a band' }),
    };
  }
}

function roundedAt(context: CompileContext, column: number, slot: number): number {
  const value = asShown(context.sheet.column(column).valueAt(slot), formatAt(context.sheet, column, slot));
  return value.kind === 'number' ? value.number : NaN;
}
