import { Moments } from '../../stats/moments';
import { NumberWindow, type PlacedNumber } from '../../stats/number-window';
import { BitSet } from '../../values/bit-set';
import { ShiftedMoments, type Bounds, type Members } from '../../stats/shifted-moments';
import type { Sheet } from '../../sheet/sheet';
import { hasWithin, setOutside, setWithin } from '../compile/number-bits';
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
    const tracks = when.deviations ? 'deviation' : 'mean';
    const groups = Grouping.over(when.per, context, (): Averaged =>
      typeof when.per === 'object' ? new GroupNumbers(tracks) : new ColumnNumbers(context.sheet, tracks),
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

/** The numbers of whole columns: plain sums that nearly always decide, and exact ones made where they are asked for. */
class ColumnNumbers {
  private readonly columns: ReadColumn[] = [];
  private sums: ShiftedMoments | null = null;
  private exact: Moments | null = null;
  /** Opened once there are edits. */
  private window: NumberWindow | null = null;
  private wasEdited = false;

  constructor(
    private readonly sheet: Sheet,
    private readonly tracks: Tracked,
  ) {}

  include(column: ReadColumn): void {
    this.columns.push(column);
  }

  get moments(): Moments {
    if (this.exact) return this.exact;
    this.exact = new Moments(this.tracks);
    for (const { numbers, slots } of this.members()) this.exact.addAll(numbers, slots);
    return this.exact;
  }

  private members(): Members[] {
    return this.columns.map(({ column, slots }) => ({ numbers: this.sheet.column(column).numbers, slots }));
  }

  private get plain(): ShiftedMoments {
    return (this.sums ??= new ShiftedMoments(this.members()));
  }

  bounds(deviations: number, spread: 'sample' | 'population'): Bounds | undefined {
    return this.plain.bounds(deviations, spread);
  }

  /** The columns hold what the edit made of them by now. */
  edit(before: number, now: PlacedNumber): void {
    this.plain.edit(before, now.number);
    this.exact = null;
    this.window?.edit(now);
    this.wasEdited = true;
  }

  /** Whether no number lies within bounds. With edits, the numbers around them are kept for the next one. */
  isClear(bounds: Bounds): boolean {
    if (this.wasEdited && !this.window?.holds(bounds)) this.window = this.windowAround(bounds);
    if (this.window) return this.window.between(bounds).length === 0;
    const { slotCount } = this.sheet;
    return !this.members().some(({ numbers }) => hasWithin(numbers, slotCount, bounds));
  }

  /** A window around bounds; null where too many numbers are near. */
  private windowAround({ low, high }: Bounds): NumberWindow | null {
    const room = WINDOW * this.plain.deviation;
    const limits = { low: low - room, high: high + room };
    const near: PlacedNumber[] = [];
    for (const { column, slots } of this.columns) {
      const { numbers } = this.sheet.column(column);
      const found = new BitSet();
      found.fit(this.sheet.slotCount);
      setWithin(numbers, this.sheet.slotCount, { ...limits, words: found.words });
      found.keep(slots);
      if (near.length + found.count() > MANY_NEAR) return null;
      found.forEach((slot) => near.push({ column, slot, number: numbers[slot] ?? NaN }));
    }
    return new NumberWindow(limits, near);
  }

  /** The cells that lie between where the threshold was and where it is; undefined where all must be looked at. */
  passed(was: Bounds | undefined, is: Bounds | undefined): readonly PlacedNumber[] | undefined {
    if (!this.window || !was || !is) return undefined;
    const way = { low: Math.min(was.low, is.low), high: Math.max(was.high, is.high) };
    return this.window.holds(way) ? this.window.between(way) : undefined;
  }
}

/** How far around a threshold numbers are kept, in standard deviations, and how many at most. */
const WINDOW = 0.01;
const MANY_NEAR = 4096;

/** The numbers of rows that share a value of a field: exact sums that come along with edits. */
class GroupNumbers {
  readonly moments: Moments;

  constructor(tracks: Tracked) {
    this.moments = new Moments(tracks);
  }

  bounds(): undefined {
    return undefined;
  }

  isClear(): boolean {
    return false;
  }

  edit(before: number, { number }: Pick<PlacedNumber, 'number'>): void {
    if (!Number.isNaN(before)) this.moments.remove(before);
    if (!Number.isNaN(number)) this.moments.add(number);
  }

  passed(): undefined {
    return undefined;
  }
}

type Tracked = 'mean' | 'deviation';
type Averaged = ColumnNumbers | GroupNumbers;

class AverageKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly thresholds = new Map<Averaged, number>();

  constructor(
    private readonly when: AverageWhen,
    private readonly context: CompileContext,
    private readonly groups: Grouping<Averaged>,
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

  /** How far from the mean the members are held against, in standard deviations; negative for below. */
  private get away(): number {
    const { deviations = 0, is } = this.when;
    return is === 'below' || is === 'at-or-below' ? -deviations : deviations;
  }

  /** The number that a group's members are held against; NaN where it does not exist. */
  private threshold(group: Averaged): number {
    let threshold = this.thresholds.get(group);
    if (threshold === undefined) {
      const { moments } = group;
      const { away } = this;
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
    const about = group?.bounds(this.away, this.when.spread ?? 'sample');
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
    const about = group.bounds(this.away, this.when.spread ?? 'sample');
    const isSure = about !== undefined && (number < about.low || number > about.high);
    return onSide(number, this.when.is, isSure ? about.low : this.threshold(group)) ? 0 : -1;
  }

  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const number = this.context.sheet.column(column).numberAt(slot);
    if (Object.is(number, before.number)) return 'this-cell';
    const group = this.groups.claim(column, slot);
    if (!group) return 'this-cell';
    const spread = this.when.spread ?? 'sample';
    const was = group.bounds(this.away, spread);
    group.edit(before.number, { column, slot, number });
    this.thresholds.delete(group);
    return group.passed(was, group.bounds(this.away, spread)) ?? 'every-cell';
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
