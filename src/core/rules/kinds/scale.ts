import { lazySchema } from '../../lazy-schema';
import { ColorRamp, type ColorSpace } from '../../looks/color-ramp';
import type { Look } from '../../looks/look';
import { hexSchema } from '../../looks/look-schema';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CellBefore } from '../../sheet/effect';
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

export interface ScaleWhen {
  readonly kind: 'scale';
  readonly stops: readonly { readonly at: Position; readonly color: string }[];
  readonly space?: ColorSpace;
  readonly per?: Per;
}

/** The scale that a rule begins with. */
export const FIRST_SCALE: ScaleWhen = {
  kind: 'scale',
  stops: [
    { at: 'least', color: '#f3e7c9' },
    { at: { percentile: 50 }, color: '#8fb8a8' },
    { at: 'greatest', color: '#1f5673' },
  ],
};

/** Every number filled with a colour between those of the stops on either side of it. */
export const scale: ConditionKind<ScaleWhen> = {
  schema: lazySchema<ScaleWhen>((joi) =>
    joi.object<ScaleWhen>({
      kind: joi.valid('scale').required(),
      stops: joi
        .array()
        .items(joi.object({ at: positionSchema(joi).required(), color: hexSchema(joi).required() }))
        .min(2)
        .required(),
      space: joi.valid('oklab', 'lab', 'rgb'),
      per: perSchema(joi),
    }),
  ),
  outcomes: 'several',
  choosesText: true,
  mapReferences: (when, to) => ({
    ...when,
    stops: when.stops.map((stop) => ({ ...stop, at: mapPosition(stop.at, to) })),
    ...mapPer(when.per, to),
  }),
  outcomeLooks: (when) => when.stops.map(({ color }) => ({ fill: color })),
  compile(when, context) {
    const positions = readPositions(
      when.stops.map(({ at }) => at),
      context,
    );
    if (isProblem(positions)) return positions;
    const groups = OrderedGroups.over(when.per, context, (numbers) => positions.among(numbers));
    if (isProblem(groups)) return groups;
    const problem = groups.findProblem(positionProblem);
    return problem ?? new ScaleKernel(when, context, { positions, groups });
  },
  sentence: (when, words) => `is coloured along ${when.stops.length} stops${perWords(when.per, words)}`,
  outcomeName: () => '',
  defaults: () => FIRST_SCALE,
  thresholds: () => [],
  ramp: ({ stops, space = 'oklab' }) =>
    new ColorRamp(
      stops.map(({ color }) => color),
      space,
    ),
  stops: (when) =>
    when.stops.map((stop, index) => ({
      at: stop.at,
      with: (value: number) => ({ ...when, stops: when.stops.with(index, { ...stop, at: value }) }),
    })),
  examples: [
    {
      says: 'every number has a colour, and nothing else has',
      when: {
        kind: 'scale',
        stops: [
          { at: 'least', color: '#000000' },
          { at: 'greatest', color: '#ffffff' },
        ],
      },
      inputs: ['1', '2', '', 'x', 'TRUE'],
      outcomes: [0, 0, -1, -1, -1],
    },
    {
      says: 'dates are numbers',
      when: {
        kind: 'scale',
        stops: [
          { at: 0, color: '#000000' },
          { at: 50_000, color: '#ffffff' },
        ],
        space: 'rgb',
      },
      inputs: ['2026-03-08', '#N/A'],
      outcomes: [0, -1],
    },
  ],
};

class ScaleKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly ramp: ColorRamp;
  private readonly positions: Positions;
  private readonly groups: OrderedGroups<number[]>;

  constructor(
    when: ScaleWhen,
    private readonly context: CompileContext,
    { positions, groups }: { positions: Positions; groups: OrderedGroups<number[]> },
  ) {
    this.positions = positions;
    this.groups = groups;
    this.inputs = joinInputs([positions.inputs, groups.grouping.inputs]);
    this.ramp = new ColorRamp(
      when.stops.map(({ color }) => color),
      when.space ?? 'oklab',
    );
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    this.groups.run(column, slotCount, into);
  }

  outcomeAt(column: number, slot: number): number {
    return this.groups.outcomeAt(column, slot);
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const positions = this.groups.edited(column, slot, before);
    return positions && !this.positions.isFixed && positionProblem(positions.now) ? 'recompile' : 'this-cell';
  }

  look(): Look {
    return {};
  }

  lookOf(column: number, slot: number): Look {
    return { fill: this.fillAt(column, slot) };
  }

  outcomeTold(_: number, column: number, slot: number): string {
    return this.fillAt(column, slot);
  }

  private fillAt(column: number, slot: number): string {
    const group = this.groups.groupAt(column, slot);
    const isLone = !this.positions.isFixed && group.numbers.least === group.numbers.greatest;
    return isLone ? this.ramp.middle() : this.ramp.at(this.context.sheet.column(column).numberAt(slot), group.derived);
  }

  explain(column: number, slot: number): Comparison {
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    const group = this.outcomeAt(column, slot) < 0 ? undefined : this.groups.of(column, slot);
    if (!group) return { left, relation: 'has no place on', right: 'the scale', note: 'only numbers have a colour' };
    return {
      left,
      relation: `is ${this.fillAt(column, slot)} on`,
      right: `stops at ${group.derived.map((number) => toldNumber(this.context.sheet, column, number)).join(', ')}`,
    };
  }
}
