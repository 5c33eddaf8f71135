import { ColumnNumbers, GroupNumbers, type AveragedNumbers } from '../compile/averaged-numbers';
import { setOutside, setWithin } from '../compile/number-bits';
import type { ReadColumn } from '../compile/reach';
import { Grouping, mapPer, perSchema, perWords, type Per } from '../compile/grouping';
import { isProblem, type Inputs } from '../terms';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CompileContext } from '../compile/compile-context';
import type { CellBefore } from '../../sheet/effect';
import type { OutcomeColumn } from '../compile/outcome-column';
import { lazySchema } from '../../lazy-schema';
import type { ConditionKind, Invalidation, Kernel } from './kind';

export const AVERAGE_SIDES = {
  above: 'is above',
  below: 'is below',
  'at-or-above': 'is at or above',
  'at-or-below': 'is at or below',
} as const;

export interface AverageWhen {
  readonly kind: 'average';
  readonly is: keyof typeof AVERAGE_SIDES;
  /** Standard deviations from the mean, on the side that `is` names; default 0. */
  readonly deviations?: number;
  readonly spread?: 'sample' | 'population';
  readonly per?: Per;
}

/** Numbers against the mean of the numbers read: all of them, those of the same field, or those of the same group. */
export const average: ConditionKind<AverageWhen> = {
  schema: lazySchema<AverageWhen>((joi) =>
    joi.object<AverageWhen>({
      kind: joi.valid('average').required(),
      is: joi.valid(...Object.keys(AVERAGE_SIDES)).required(),
      deviations: joi.number().strict().min(0),
      spread: joi.valid('sample', 'population'),
      per: perSchema(joi),
    }),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => ({ ...when, ...mapPer(when.per, to) }),
  outcomeLooks: () => undefined,
  compile(when, context) {
    const asked = { away: awayOf(when), spread: when.spread ?? 'sample' };
    const groups = Grouping.over(when.per, context, (): AveragedNumbers =>
      typeof when.per === 'object' ? new GroupNumbers(asked) : new ColumnNumbers(context.sheet, asked),
    );
    return isProblem(groups) ? groups : new AverageKernel(when, context, groups);
  },
  sentence(when, words) {
    const much = when.deviations
      ? ` by more than ${when.deviations} ${when.spread ?? 'sample'} deviation${when.deviations === 1 ? '' : 's'}`
      : '';
    return `${AVERAGE_SIDES[when.is]} the average${perWords(when.per, words)}${much}`;
  },
  outcomeName: () => '',
  defaults: () => ({ kind: 'average', is: 'above' }),
  thresholds: () => [],
  marks({ deviations = 0, per = 'all' }, { mean, deviation }) {
    // Each group has an average of its own: there is none to show for all.
    if (per !== 'all') return [];
    const far = deviations > 0 && !Number.isNaN(deviation) ? [-deviations, deviations] : [];
    return [
      { value: mean, says: 'average' },
      ...far.map((by) => ({ value: mean + by * deviation, says: `${by} dev.` })),
    ];
  },
  examples: [
    {
      says: 'a number equal to the mean is neither above nor below',
      when: { kind: 'average', is: 'above' },
      inputs: ['1', '2', '3', '', 'text'],
      outcomes: [-1, -1, 0, -1, -1],
    },
    {
      says: 'a sample deviation of fewer than two numbers does not exist',
      when: { kind: 'average', is: 'at-or-below', deviations: 1 },
      inputs: ['5', 'text'],
      outcomes: [-1, -1],
    },
  ],
};

class AverageKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly thresholds = new Map<AveragedNumbers, number>();

  constructor(
    private readonly when: AverageWhen,
    private readonly context: CompileContext,
    private readonly groups: Grouping<AveragedNumbers>,
  ) {
    this.inputs = groups.inputs;
    for (const read of context.cells) {
      const whole = groups.isByColumn ? groups.claim(read.column, 0) : undefined;
      if (whole instanceof ColumnNumbers) whole.include(read);
      else this.addEach(read);
    }
  }

  private addEach({ column, slots }: ReadColumn): void {
    const { numbers } = this.context.sheet.column(column);
    slots.forEach((slot) => {
      const number = numbers[slot]!;
      if (!Number.isNaN(number)) this.groups.claim(column, slot)?.edit(NaN, { column, slot, number });
    });
  }

  /** The number that a group's members are held against; NaN where it does not exist. */
  private threshold(group: AveragedNumbers): number {
    let threshold = this.thresholds.get(group);
    if (threshold === undefined) {
      const { moments } = group;
      const away = awayOf(this.when);
      threshold = moments.mean + (away === 0 ? 0 : away * moments.deviation(this.when.spread ?? 'sample'));
      this.thresholds.set(group, threshold);
    }
    return threshold;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const { numbers } = this.context.sheet.column(column);
    if (!this.groups.isByColumn) {
      for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
      return;
    }
    const group = this.groups.of(column, 0);
    const { words } = into.has;
    const about = group?.bounds;
    const isSure = about !== undefined && group?.isClear(about);
    const threshold = isSure ? about.low : group ? this.threshold(group) : NaN;
    switch (this.when.is) {
      case 'above':
        return setOutside(numbers, slotCount, { low: -Infinity, high: threshold, words });
      case 'below':
        return setOutside(numbers, slotCount, { low: threshold, high: Infinity, words });
      case 'at-or-above':
        return setWithin(numbers, slotCount, { low: threshold, high: Infinity, words });
      case 'at-or-below':
        return setWithin(numbers, slotCount, { low: -Infinity, high: threshold, words });
    }
  }

  outcomeAt(column: number, slot: number): number {
    const group = this.groups.of(column, slot);
    const number = this.context.sheet.column(column).numberAt(slot);
    if (!group || Number.isNaN(number)) return -1;
    const about = group.bounds;
    const isSure = about !== undefined && (number < about.low || number > about.high);
    return onSide(number, this.when.is, isSure ? about.low : this.threshold(group)) ? 0 : -1;
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const number = this.context.sheet.column(column).numberAt(slot);
    if (Object.is(number, before.number)) return 'this-cell';
    const group = this.groups.claim(column, slot);
    if (!group) return 'this-cell';
    this.thresholds.delete(group);
    return group.edit(before.number, { column, slot, number }) ?? 'every-cell';
  }

  look(): undefined {
    return undefined;
  }

  private told(column: number, number: number): string {
    return toldNumber(this.context.sheet, column, Number(number.toPrecision(6)));
  }

  explain(column: number, slot: number) {
    const group = this.groups.of(column, slot);
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    const relation = AVERAGE_SIDES[this.when.is];
    if (!group || group.moments.count === 0)
      return { left, relation, right: 'an average of no numbers', note: 'there are no numbers to average' };
    const { moments } = group;
    const { deviations = 0, spread = 'sample' } = this.when;
    const mean = `average ${this.told(column, moments.mean)} of ${moments.count} numbers`;
    const right = deviations
      ? `${this.told(column, this.threshold(group))} (${mean}, ${deviations} × ${spread} deviation ${this.told(column, moments.deviation(spread))})`
      : mean;
    const isNumber = !Number.isNaN(this.context.sheet.column(column).numberAt(slot));
    return { left, relation, right, ...(isNumber ? {} : { note: 'only numbers are held against an average' }) };
  }
}

/** How far from the mean the members are held against, in standard deviations; negative for below. */
export const awayOf = ({ deviations = 0, is }: AverageWhen): number =>
  is === 'below' || is === 'at-or-below' ? -deviations : deviations;

export function onSide(number: number, is: AverageWhen['is'], threshold: number): boolean {
  switch (is) {
    case 'above':
      return number > threshold;
    case 'below':
      return number < threshold;
    case 'at-or-above':
      return number >= threshold;
    case 'at-or-below':
      return number <= threshold;
  }
}
