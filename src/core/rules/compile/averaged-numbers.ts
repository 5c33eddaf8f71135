import { Moments } from '../../stats/moments';
import { NumberWindow, type PlacedNumber } from '../../stats/number-window';
import { ShiftedMoments, type Bounds, type Members } from '../../stats/shifted-moments';
import type { Sheet } from '../../sheet/sheet';
import { BitSet } from '../../values/bit-set';
import { hasWithin, setWithin } from './number-bits';
import type { ReadColumn } from './reach';

/** What is asked of the numbers: the mean, or what lies so many standard deviations from it, negative for below. */
interface Asked {
  readonly away: number;
  readonly spread: 'sample' | 'population';
}

/** Numbers that are averaged together: those of whole columns, or of the rows of one group. */
export type AveragedNumbers = ColumnNumbers | GroupNumbers;

const tracked = ({ away }: Asked) => (away === 0 ? 'mean' : 'deviation');

/** How far around a threshold numbers are kept, in standard deviations, and how many at most. */
const WINDOW = 0.01;
const MANY_NEAR = 4096;

/** The numbers of whole columns: plain sums that nearly always decide, and exact ones made where they are asked for. */
export class ColumnNumbers {
  private readonly columns: ReadColumn[] = [];
  private sums: ShiftedMoments | null = null;
  private exact: Moments | null = null;
  /** Opened once there are edits. */
  private window: NumberWindow | null = null;
  private wasEdited = false;

  constructor(
    private readonly sheet: Sheet,
    private readonly asked: Asked,
  ) {}

  include(column: ReadColumn): void {
    this.columns.push(column);
  }

  /** The exact sums. */
  get moments(): Moments {
    if (this.exact) return this.exact;
    this.exact = new Moments(tracked(this.asked));
    for (const { numbers, slots } of this.members()) this.exact.addAll(numbers, slots);
    return this.exact;
  }

  /** Where the threshold surely lies; undefined where plain sums cannot tell. */
  get bounds(): Bounds | undefined {
    this.sums ??= new ShiftedMoments(this.members());
    return this.sums.bounds(this.asked.away, this.asked.spread);
  }

  private members(): Members[] {
    return this.columns.map(({ column, slots }) => ({ numbers: this.sheet.column(column).numbers, slots }));
  }

  /**
   * One number goes, another comes; NaN for none. The columns hold the new one by now, so sums that are not there yet
   * are not made here: they would count the edit twice. Returns the cells whose side of the threshold may be another;
   * undefined where all must be looked at.
   */
  edit(before: number, now: PlacedNumber): readonly PlacedNumber[] | undefined {
    const { away, spread } = this.asked;
    const was = this.sums?.bounds(away, spread);
    this.sums?.edit(before, now.number);
    if (this.exact) replaceIn(this.exact, before, now.number);
    this.window?.edit(now);
    this.wasEdited = true;
    return this.between(was, this.sums?.bounds(away, spread));
  }

  /** The cells that lie between where the threshold was and where it is. */
  private between(was: Bounds | undefined, is: Bounds | undefined): readonly PlacedNumber[] | undefined {
    if (!this.window || !was || !is) return undefined;
    const way = { low: Math.min(was.low, is.low), high: Math.max(was.high, is.high) };
    return this.window.holds(way) ? this.window.between(way) : undefined;
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
    const room = WINDOW * (this.sums?.deviation ?? 0);
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
}

/** The numbers of rows that share a value of a field: exact sums that come along with edits. */
export class GroupNumbers {
  readonly moments: Moments;
  readonly bounds = undefined;

  constructor(asked: Asked) {
    this.moments = new Moments(tracked(asked));
  }

  isClear(): boolean {
    return false;
  }

  edit(before: number, { number }: Pick<PlacedNumber, 'number'>): undefined {
    replaceIn(this.moments, before, number);
  }
}

function replaceIn(moments: Moments, before: number, now: number): void {
  if (!Number.isNaN(before)) moments.remove(before);
  if (!Number.isNaN(now)) moments.add(now);
}
