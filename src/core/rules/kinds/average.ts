import { Moments } from '../../stats/moments';
import { Grouping, mapPer, perSchema, perWords, type Per } from '../compile/grouping';
import { isProblem, type Inputs } from '../terms';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import type { CompileContext } from '../compile/compile-context';
import type { CellBefore } from '../../sheet/effect';
import type { OutcomeColumn } from '../compile/outcome-column';
import { lazySchema } from '../../lazy-schema';
import type { ConditionKind, Kernel } from './kind';

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
    const groups = Grouping.over(when.per, context, () => new Moments(when.deviations ? 'deviation' : 'mean'));
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
  private readonly thresholds = new Map<Moments, number>();

  constructor(
    private readonly when: AverageWhen,
    private readonly context: CompileContext,
    private readonly groups: Grouping<Moments>,
  ) {
    this.inputs = groups.inputs;
    for (const { column, slots } of context.cells) {
      const { numbers } = context.sheet.column(column);
      if (groups.isByColumn) groups.claim(column, 0)!.addAll(numbers, slots);
      else
        slots.forEach((slot) => {
          const number = numbers[slot]!;
          if (!Number.isNaN(number)) groups.claim(column, slot)?.add(number);
        });
    }
  }

  /** The number that a group's members are held against; NaN where it does not exist. */
  private threshold(moments: Moments): number {
    let threshold = this.thresholds.get(moments);
    if (threshold === undefined) {
      const { deviations = 0, spread = 'sample', is } = this.when;
      const away = deviations === 0 ? 0 : deviations * moments.deviation(spread);
      threshold = is === 'below' || is === 'at-or-below' ? moments.mean - away : moments.mean + away;
      this.thresholds.set(moments, threshold);
    }
    return threshold;
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const { numbers } = this.context.sheet.column(column);
    if (!this.groups.isByColumn) {
      for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
      return;
    }
    const moments = this.groups.of(column, 0);
    const threshold = moments ? this.threshold(moments) : NaN;
    const { words } = into.has;
    const sign = this.when.is === 'above' || this.when.is === 'at-or-above' ? 1 : -1;
    const takesEqual = this.when.is === 'at-or-above' || this.when.is === 'at-or-below';
    const edge = threshold * sign;
    for (let word = 0, slot = 0; slot < slotCount; word++) {
      let bits = 0;
      for (const end = Math.min(slot + 32, slotCount); slot < end; slot++) {
        const number = numbers[slot]! * sign;
        if (number > edge || (takesEqual && number === edge)) bits |= 1 << (slot & 31);
      }
      words[word] = bits;
    }
  }

  outcomeAt(column: number, slot: number): number {
    const moments = this.groups.of(column, slot);
    const number = this.context.sheet.column(column).numberAt(slot);
    return moments && onSide(number, this.when.is, this.threshold(moments)) ? 0 : -1;
  }

  edited(column: number, slot: number, before: CellBefore): 'this-cell' | 'every-cell' {
    const number = this.context.sheet.column(column).numberAt(slot);
    if (Object.is(number, before.number)) return 'this-cell';
    const moments = this.groups.claim(column, slot);
    if (!moments) return 'this-cell';
    if (!Number.isNaN(before.number)) moments.remove(before.number);
    if (!Number.isNaN(number)) moments.add(number);
    this.thresholds.delete(moments);
    return 'every-cell';
  }

  look(): undefined {
    return undefined;
  }

  private told(column: number, number: number): string {
    return toldNumber(this.context.sheet, column, Number(number.toPrecision(6)));
  }

  explain(column: number, slot: number) {
    const moments = this.groups.of(column, slot);
    const left = shownAt(this.context.sheet, column, slot) || 'blank';
    const relation = AVERAGE_SIDES[this.when.is];
    if (!moments || moments.count === 0)
      return { left, relation, right: 'an average of no numbers', note: 'there are no numbers to average' };
    const { deviations = 0, spread = 'sample' } = this.when;
    const mean = `average ${this.told(column, moments.mean)} of ${moments.count} numbers`;
    const right = deviations
      ? `${this.told(column, this.threshold(moments))} (${mean}, ${deviations} × ${spread} deviation ${this.told(column, moments.deviation(spread))})`
      : mean;
    const isNumber = !Number.isNaN(this.context.sheet.column(column).numberAt(slot));
    return { left, relation, right, ...(isNumber ? {} : { note: 'only numbers are held against an average' }) };
  }
}

function onSide(number: number, is: AverageWhen['is'], threshold: number): boolean {
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
