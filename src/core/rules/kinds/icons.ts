import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import { ICON_SETS, type IconSet } from '../../looks/icon-sets';
import type { Look } from '../../looks/look';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CellBefore } from '../../sheet/effect';
import type { CompileContext } from '../compile/compile-context';
import { mapPer, perSchema, perWords, type Per } from '../compile/grouping';
import { joinInputs } from '../compile/operands';
import { OrderedGroups } from '../compile/ordered-groups';
import type { OutcomeColumn } from '../compile/outcome-column';
import { positionProblem, positionSchema, mapPosition, readPositions, type Position } from '../compile/positions';
import { isProblem, type Inputs } from '../terms';
import type { Comparison, ConditionKind, Kernel, Invalidation } from './kind';

export interface IconsWhen {
  readonly kind: 'icons';
  readonly set: IconSet;
  readonly cuts: readonly { readonly at: Position; readonly edge?: '>=' | '>' }[];
  readonly reverse?: boolean;
  readonly showValue?: boolean;
  /** Icons, by their place in the set, that are not drawn. */
  readonly hide?: readonly number[];
  readonly per?: Per;
}

const setSchema = lazySchema<IconsWhen['set']>(
  (joi) => joi.valid(...Object.keys(ICON_SETS)),
  `one of ${Object.keys(ICON_SETS).join(', ')}`,
);

/** An icon for every number, by cuts in rising order: one icon more than cuts. */
export const icons: ConditionKind<IconsWhen> = {
  schema: lazySchema<IconsWhen>((joi) =>
    joi
      .object<IconsWhen>({
        kind: joi.valid('icons').required(),
        set: setSchema(joi).required(),
        cuts: joi
          .array()
          .items(joi.object({ at: positionSchema(joi).required(), edge: joi.valid('>=', '>') }))
          .min(1)
          .required(),
        reverse: joi.boolean(),
        showValue: joi.boolean(),
        hide: joi.array().items(joi.number().strict().integer().min(0).max(4)),
        per: perSchema(joi),
      })
      .custom((when: IconsWhen, helpers) => {
        const icons = ICON_SETS[when.set].length;
        if (icons !== when.cuts.length + 1)
          return helpers.message({
            custom: `{{#label}}.cuts must have ${icons - 1} entries, one fewer than the icons of ${when.set}`,
          });
        return when;
      }),
  ),
  outcomes: 'several',
  mapReferences: (when, to) => ({
    ...when,
    cuts: when.cuts.map((cut) => ({ ...cut, at: mapPosition(cut.at, to) })),
    ...mapPer(when.per, to),
  }),
  outcomeLooks: (when) => ICON_SETS[when.set].map((_, index) => lookOf(when, index)),
  compile(when, context) {
    const positions = readPositions(
      when.cuts.map(({ at }) => at),
      context,
    );
    if (isProblem(positions)) return positions;
    const groups = OrderedGroups.over(when.per, context, (numbers) => positions.among(numbers));
    if (isProblem(groups)) return groups;
    const problem = groups.findProblem(positionProblem);
    return problem ?? new IconsKernel(when, context, { inputs: positions.inputs, groups });
  },
  sentence: (when, words) => `has one of ${when.cuts.length + 1} icons${perWords(when.per, words)}`,
  outcomeName: (when, outcome) => ICON_SETS[when.set][outcome] ?? '',
  defaults: ({ numbers, lowerQuartile, upperQuartile }) => ({
    kind: 'icons',
    set: 'stars3',
    cuts:
      numbers && lowerQuartile < upperQuartile
        ? [{ at: lowerQuartile }, { at: upperQuartile }]
        : [{ at: { percentile: 25 } }, { at: { percentile: 75 } }],
  }),
  thresholds: (when) =>
    when.cuts.flatMap(({ at }, index) =>
      typeof at === 'number'
        ? [
            {
              value: at,
              with: (value: number) => ({
                ...when,
                cuts: when.cuts.with(index, { ...itemAt(when.cuts, index), at: value }),
              }),
            },
          ]
        : [],
    ),
  stops: (when) =>
    when.cuts.map((cut, index) => ({
      at: cut.at,
      with: (value: number) => ({ ...when, cuts: when.cuts.with(index, { ...cut, at: value }) }),
    })),
  isByRecord: ({ cuts }) => cuts.every(({ at }) => typeof at === 'number'),
  examples: [
    {
      says: 'at 70 and 90 by value, 70 has the middle one when the edge is "at least"',
      when: { kind: 'icons', set: 'arrows3', cuts: [{ at: 70 }, { at: 90 }] },
      inputs: ['69.9', '70', '90', ''],
      outcomes: [0, 1, 2, -1],
    },
    {
      says: 'and the lowest one when it is "more than"',
      when: {
        kind: 'icons',
        set: 'arrows3',
        cuts: [
          { at: 70, edge: '>' },
          { at: 90, edge: '>' },
        ],
      },
      inputs: ['70', '70.1', '90'],
      outcomes: [0, 1, 1],
    },
  ],
};

function lookOf({ set, hide, showValue }: IconsWhen, index: number): Look | null {
  const hidden = showValue === false ? { hideValue: true } : {};
  return hide?.includes(index) ? (showValue === false ? hidden : null) : { icon: { set, index }, ...hidden };
}

class IconsKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly groups: OrderedGroups<number[]>;

  constructor(
    private readonly when: IconsWhen,
    private readonly context: CompileContext,
    { inputs, groups }: { inputs: Inputs; groups: OrderedGroups<number[]> },
  ) {
    this.groups = groups;
    this.inputs = joinInputs([inputs, groups.grouping.inputs]);
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  outcomeAt(column: number, slot: number): number {
    const number = this.context.sheet.column(column).numberAt(slot);
    const cuts = number === number ? this.groups.of(column, slot)?.derived : undefined;
    if (!cuts) return -1;
    let icon = 0;
    for (const [at, { edge = '>=' }] of this.when.cuts.entries())
      if (edge === '>=' ? number >= cuts[at]! : number > cuts[at]!) icon = at + 1;
    return this.when.reverse ? cuts.length - icon : icon;
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const cuts = this.groups.edited(column, slot, before);
    if (!cuts || cuts.before.every((cut, at) => Object.is(cut, cuts.now[at]))) return 'this-cell';
    return positionProblem(cuts.now) ? 'recompile' : 'every-cell';
  }

  look(outcome: number): Look | null {
    return lookOf(this.when, outcome);
  }

  explain(column: number, slot: number): Comparison {
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    const outcome = this.outcomeAt(column, slot);
    if (outcome < 0) return { left, relation: 'has no', right: 'icon', note: 'only numbers have an icon' };
    const cuts = this.groups
      .groupAt(column, slot)
      .derived.map((number) => toldNumber(this.context.sheet, column, number))
      .join(' and ');
    return { left, relation: `has the icon “${ICON_SETS[this.when.set][outcome]}” by`, right: `cuts at ${cuts}` };
  }
}
