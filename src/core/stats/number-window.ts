import type { Bounds } from './shifted-moments';

/** A cell with its number. */
export interface PlacedNumber {
  readonly column: number;
  readonly slot: number;
  readonly number: number;
}

/**
 * The numbers near a threshold that moves a little with each edit, and their cells: those that it passes are found
 * among a few hundred, not among all.
 */
export class NumberWindow {
  constructor(
    private readonly limits: Bounds,
    private near: readonly PlacedNumber[],
  ) {}

  /** A cell has another number now; NaN for none. */
  edit({ column, slot, number }: PlacedNumber): void {
    const others = this.near.filter((each) => each.column !== column || each.slot !== slot);
    this.near = this.holds({ low: number, high: number }) ? [...others, { column, slot, number }] : others;
  }

  /** Whether all between two bounds is within the window; false for NaN. */
  holds({ low, high }: Bounds): boolean {
    return low > this.limits.low && high < this.limits.high;
  }

  /** The cells with numbers between two bounds, which the window holds. */
  between({ low, high }: Bounds): readonly PlacedNumber[] {
    return this.near.filter(({ number }) => number >= low && number <= high);
  }
}
