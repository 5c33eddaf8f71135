import { lazySchema } from '../../lazy-schema';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CellBefore } from '../../sheet/effect';
import type { RankedNumbers } from '../../stats/ranked-numbers';
import type { CompileContext } from '../compile/compile-context';
import { mapPer, perSchema, perWords, type Per } from '../compile/grouping';
import { setWithin } from '../compile/number-bits';
import { OrderedGroups } from '../compile/ordered-groups';
import type { OutcomeColumn } from '../compile/outcome-column';
import { isProblem, type Inputs } from '../terms';
import type { Comparison, ConditionKind, Kernel, Invalidation } from './kind';

export interface RankWhen {
  readonly kind: 'rank';
  readonly is: 'top' | 'bottom';
  readonly n?: number;
  /** Share of the numbers, 0 to 100. */
  readonly percent?: number;
  readonly per?: Per;
}

/** The greatest or least numbers, ties at the edge included. */
export const rank: ConditionKind<RankWhen> = {
  schema: lazySchema<RankWhen>((joi) =>
    joi
      .object<RankWhen>({
        kind: joi.valid('rank').required(),
        is: joi.valid('top', 'bottom').required(),
        n: joi.number().strict().integer().min(1),
        percent: joi.number().strict().min(0).max(100),
        per: perSchema(joi),
      })
      .custom((when: RankWhen, helpers) => {
        if ((when.n === undefined) === (when.percent === undefined))
          return helpers.message({ custom: '{{#label}} must have either "n" or "percent"' });
        return when;
      }),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => ({ ...when, ...mapPer(when.per, to) }),
  outcomeLooks: () => undefined,
  compile(when, context) {
    const groups = OrderedGroups.over(when.per, context, (numbers) => edgeOf(when, numbers));
    return isProblem(groups) ? groups : new RankKernel(when, context, groups);
  },
  sentence: (when, words) => `is ${rankWords(when)}${perWords(when.per, words)}`,
  outcomeName: () => '',
  defaults: () => ({ kind: 'rank', is: 'top', n: 10 }),
  thresholds: () => [],
  examples: [
    {
      says: 'ties at the edge are included',
      when: { kind: 'rank', is: 'top', n: 2 },
      inputs: ['5', '9', '7', '7', '', 'x'],
      outcomes: [-1, 0, 0, 0, -1, -1],
    },
    {
      says: 'a share of the numbers is at least one of them',
      when: { kind: 'rank', is: 'bottom', percent: 10 },
      inputs: ['3', '1', '2'],
      outcomes: [-1, 0, -1],
    },
  ],
};

function rankWords({ is, n, percent }: RankWhen): string {
  const which = is === 'top' ? 'greatest' : 'least';
  if (n === undefined) return `in the ${which} ${percent} %`;
  return n === 1 ? `the ${which}` : `among the ${n} ${which}`;
}

/** The number that is still among those wanted; NaN of none. */
function edgeOf(when: RankWhen, numbers: RankedNumbers): number {
  const { count } = numbers;
  const wanted = placesOf(when, count);
  return numbers.at(when.is === 'top' ? count - wanted : wanted - 1);
}

/** How many of so many numbers are wanted, ties apart. */
export const placesOf = ({ n, percent }: RankWhen, count: number): number =>
  Math.min(count, n ?? Math.max(1, Math.floor((count * (percent ?? 0)) / 100)));

class RankKernel implements Kernel {
  readonly inputs: Inputs;

  constructor(
    private readonly when: RankWhen,
    private readonly context: CompileContext,
    private readonly groups: OrderedGroups<number>,
  ) {
    this.inputs = groups.grouping.inputs;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    if (!this.groups.grouping.isByColumn) {
      for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
      return;
    }
    const { numbers } = this.context.sheet.column(column);
    const edge = this.groups.of(column, 0)?.derived ?? NaN;
    const limits = this.when.is === 'top' ? { low: edge, high: Infinity } : { low: -Infinity, high: edge };
    setWithin(numbers, slotCount, { ...limits, words: into.has.words });
  }

  outcomeAt(column: number, slot: number): number {
    const edge = this.groups.of(column, slot)?.derived ?? NaN;
    const number = this.context.sheet.column(column).numberAt(slot);
    return (this.when.is === 'top' ? number >= edge : number <= edge) ? 0 : -1;
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const edges = this.groups.edited(column, slot, before);
    return !edges || Object.is(edges.before, edges.now) ? 'this-cell' : 'every-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const group = this.groups.of(column, slot);
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    const relation = `is ${rankWords(this.when)}`;
    if (!group || group.numbers.count === 0)
      return { left, relation, right: 'no numbers', note: 'there are no numbers to rank' };
    const isNumber = !Number.isNaN(this.context.sheet.column(column).numberAt(slot));
    const right = `${group.numbers.count} numbers: from ${toldNumber(this.context.sheet, column, group.derived)} ${this.when.is === 'top' ? 'up' : 'down'}`;
    return { left, relation, right, ...(isNumber ? {} : { note: 'only numbers are ranked' }) };
  }
}
