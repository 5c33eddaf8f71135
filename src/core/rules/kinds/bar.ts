import { itemAt, lastItem } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import type { Look, LookBar } from '../../looks/look';
import { hexSchema } from '../../looks/look-schema';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CellBefore } from '../../sheet/effect';
import type { RankedNumbers } from '../../stats/ranked-numbers';
import type { CompileContext } from '../compile/compile-context';
import { mapPer, perSchema, perWords, type Per } from '../compile/grouping';
import { joinInputs } from '../compile/operands';
import { OrderedGroups } from '../compile/ordered-groups';
import type { OutcomeColumn } from '../compile/outcome-column';
import {
  positionProblem,
  positionSchema,
  mapPosition,
  readPositions,
  type Position,
  type Positions,
} from '../compile/positions';
import { isProblem, type Inputs } from '../terms';
import type { Comparison, ConditionKind, Kernel, Invalidation } from './kind';

export interface BarWhen {
  readonly kind: 'bar';
  /** Where the bar begins and ends; `auto` is min(0, least) and max(0, greatest). */
  readonly from?: Position | 'auto';
  readonly to?: Position | 'auto';
  readonly color?: string;
  /** Colour of numbers below the axis. */
  readonly below?: string;
  readonly style?: 'solid' | 'gradient';
  /** The side of the cell that bars grow from. */
  readonly side?: 'start' | 'end';
  readonly axis?: 'zero' | 'middle' | 'none';
  readonly showValue?: boolean;
  readonly per?: Per;
}

/** The colours of bars whose rule gives none. */
export const BAR_COLORS = { above: '#7fa6c9', below: '#d98a6c' } as const;

const endSchema = lazySchema<Position | 'auto'>(
  (joi) => joi.alternatives().try(joi.valid('auto'), positionSchema(joi)),
  '"auto", a number, "least", "greatest", { "percent": p }, { "percentile": p }, { "cell": "F4" } or { "formula": "=..." }',
);

/** A bar in every cell with a number, in proportion to its value. */
export const bar: ConditionKind<BarWhen> = {
  schema: lazySchema<BarWhen>((joi) =>
    joi.object<BarWhen>({
      kind: joi.valid('bar').required(),
      from: endSchema(joi),
      to: endSchema(joi),
      color: hexSchema(joi),
      below: hexSchema(joi),
      style: joi.valid('solid', 'gradient'),
      side: joi.valid('start', 'end'),
      axis: joi.valid('zero', 'middle', 'none'),
      showValue: joi.boolean(),
      per: perSchema(joi),
    }),
  ),
  outcomes: 'several',
  mapReferences: (when, to) => ({
    ...when,
    ...(when.from === undefined || when.from === 'auto' ? {} : { from: mapPosition(when.from, to) }),
    ...(when.to === undefined || when.to === 'auto' ? {} : { to: mapPosition(when.to, to) }),
    ...mapPer(when.per, to),
  }),
  outcomeLooks: ({ color = BAR_COLORS.above }) => [{ bar: { start: 0, end: 1, axis: null, color, style: 'solid' } }],
  compile(when, context) {
    const { from = 'auto', to = 'auto' } = when;
    const positions = readPositions(
      [from, to].filter((end) => end !== 'auto'),
      context,
    );
    if (isProblem(positions)) return positions;
    const groups = OrderedGroups.over(when.per, context, (numbers) => endsAmong(when, { positions, numbers }));
    if (isProblem(groups)) return groups;
    const problem = groups.findProblem(positionProblem);
    return problem ?? new BarKernel(when, context, { positions, groups });
  },
  sentence: (when, words) => `has a bar as long as its value${perWords(when.per, words)}`,
  outcomeName: () => '',
  defaults: () => ({ kind: 'bar' }),
  thresholds: () => [],
  stops: ({ from = 'auto', to = 'auto', ...when }) => [
    ...(from === 'auto' ? [] : [{ at: from, with: (value: number) => ({ ...when, from: value, to }) }]),
    ...(to === 'auto' ? [] : [{ at: to, with: (value: number) => ({ ...when, from, to: value }) }]),
  ],
  examples: [
    {
      says: 'every number has a bar, and nothing else has',
      when: { kind: 'bar' },
      inputs: ['60%', '100%', '', 'x'],
      outcomes: [0, 0, -1, -1],
    },
    {
      says: 'a number beyond fixed ends too',
      when: { kind: 'bar', from: 0, to: 10 },
      inputs: ['-5', '15', "'5"],
      outcomes: [0, 0, -1],
    },
  ],
};

function endsAmong(
  { from = 'auto', to = 'auto' }: BarWhen,
  { positions, numbers }: { positions: Positions; numbers: RankedNumbers },
): number[] {
  const given = positions.among(numbers);
  const low = from === 'auto' ? Math.min(0, numbers.count ? numbers.least : 0) : itemAt(given, 0);
  const high = to === 'auto' ? Math.max(0, numbers.count ? numbers.greatest : 0) : lastItem(given);
  return [low, high];
}

/** Where the axis stands and a value ends, as shares of the cell from the side that bars grow from. */
export function barShares(
  value: number,
  [from = NaN, to = NaN]: readonly number[],
  axis: 'zero' | 'middle' | 'none',
): { axis: number | null; at: number } | null {
  if (axis === 'middle') {
    const half = Math.max(Math.abs(from), Math.abs(to));
    return half === 0 ? null : { axis: 0.5, at: clamp(0.5 + value / half / 2) };
  }
  if (from === to) return null;
  const share = (number: number) => clamp((number - from) / (to - from));
  return { axis: axis === 'none' ? null : share(0), at: share(value) };
}

const clamp = (share: number): number => Math.min(1, Math.max(0, share));

class BarKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly positions: Positions;
  private readonly groups: OrderedGroups<number[]>;

  constructor(
    private readonly when: BarWhen,
    private readonly context: CompileContext,
    { positions, groups }: { positions: Positions; groups: OrderedGroups<number[]> },
  ) {
    this.positions = positions;
    this.groups = groups;
    this.inputs = joinInputs([positions.inputs, groups.grouping.inputs]);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    this.groups.run(column, slotCount, into);
  }

  outcomeAt(column: number, slot: number): number {
    return this.groups.outcomeAt(column, slot);
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const ends = this.groups.edited(column, slot, before);
    return ends && positionProblem(ends.now) ? 'recompile' : 'this-cell';
  }

  look(): Look {
    return {};
  }

  lookOf(column: number, slot: number): Look {
    const { style = 'solid', showValue } = this.when;
    const found = this.barAt(column, slot);
    return { ...(found ? { bar: { ...found, style } } : {}), ...(showValue === false ? { hideValue: true } : {}) };
  }

  outcomeTold(_: number, column: number, slot: number): readonly number[] {
    const found = this.barAt(column, slot);
    return found ? [found.start, found.end] : [0, 0];
  }

  private barAt(column: number, slot: number): Omit<LookBar, 'style'> | null {
    const { axis = 'zero', side = 'start', color = BAR_COLORS.above, below = BAR_COLORS.below } = this.when;
    const value = this.context.sheet.column(column).numberAt(slot);
    const shares = barShares(value, this.groups.groupAt(column, slot).derived, axis);
    if (!shares) return null;
    const mirrored = (share: number) => (side === 'end' ? 1 - share : share);
    const [one, other] = [mirrored(shares.axis ?? 0), mirrored(shares.at)];
    return {
      start: Math.min(one, other),
      end: Math.max(one, other),
      axis: shares.axis === null ? null : one,
      color: value < 0 ? below : color,
    };
  }

  explain(column: number, slot: number): Comparison {
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    if (this.outcomeAt(column, slot) < 0)
      return { left, relation: 'has no', right: 'bar', note: 'only numbers have a bar' };
    const [from = NaN, to = NaN] = this.groups.groupAt(column, slot).derived;
    return {
      left,
      relation: 'has a bar between',
      right: `${toldNumber(this.context.sheet, column, from)} and ${toldNumber(this.context.sheet, column, to)}`,
    };
  }
}
