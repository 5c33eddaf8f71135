import type { BitSet } from '../values/bit-set';
import { ExactSum } from './exact-sum';

/** Beyond this a number's square is no double, so there is no deviation while one is there. */
const LARGEST_SQUARED = 1e150;
/** Beyond this sums may leave the doubles, so there is no mean while one is there. */
const LARGEST_SUMMED = 1e300;

/**
 * Count, mean and deviation of a changing set of numbers. Sums are exact, so that after values were added and removed
 * they equal a fresh computation to the last bit.
 */
export class Moments {
  count = 0;
  private readonly sum = new ExactSum();
  private readonly squares = new ExactSum();
  private unsquared = 0;
  private unsummed = 0;

  /** `tracks` says whether a deviation will be asked for: without one, squares need not be kept. */
  constructor(private readonly tracks: 'mean' | 'deviation' = 'deviation') {}

  add(value: number): void {
    this.take(value, 1);
  }

  /** Takes out a value that was added before. */
  remove(value: number): void {
    this.take(value, -1);
  }

  /** Adds the numbers of these members, passing over NaN: the same as `add` for each, and quicker for means. */
  addAll(numbers: Float64Array, members: BitSet): void {
    if (this.tracks === 'mean' && !hasHuge(numbers, members)) {
      this.count += this.sum.addMembers(numbers, members.words);
      return;
    }
    members.forEach((member) => {
      if (!Number.isNaN(numbers[member]!)) this.add(numbers[member]!);
    });
  }

  private take(value: number, sign: 1 | -1): void {
    this.count += sign;
    const size = Math.abs(value);
    if (size > LARGEST_SUMMED) this.unsummed += sign;
    else this.sum.add(sign * value);
    if (this.tracks === 'mean') return;
    if (size > LARGEST_SQUARED) {
      this.unsquared += sign;
      return;
    }
    const square = value * value;
    this.squares.add(sign * square);
    this.squares.add(sign * squareError(value, square));
  }

  /** Arithmetic mean; NaN of no numbers. */
  get mean(): number {
    return this.unsummed > 0 ? NaN : this.sum.rounded() / this.count;
  }

  /**
   * Standard deviation: `sample` divides by n - 1 and needs two numbers, `population` by n and needs one; NaN
   * otherwise.
   */
  deviation(spread: 'sample' | 'population'): number {
    const divisor = spread === 'sample' ? this.count - 1 : this.count;
    if (divisor < 1 || this.unsquared > 0 || this.tracks === 'mean') return NaN;
    // Squared deviations add up to squares - sum² / n, with sum² as a pair of doubles so that the leading digits cancel
    // exactly.
    const [sum, sumRest] = this.sum.pair();
    const [squares, squaresRest] = this.squares.pair();
    const square = sum * sum;
    const error = squareError(sum, square) + 2 * sum * sumRest;
    const quotient = square / this.count;
    const back = quotient * this.count;
    const remainder = square - back - productError(quotient, this.count, back);
    return Math.sqrt(Math.max(0, squares - quotient + (squaresRest - (remainder + error) / this.count)) / divisor);
  }
}

/** The rounding error of a square (Dekker 1971). */
const squareError = (value: number, square: number): number => productError(value, value, square);

/** 2^27 + 1: splits a double into two halves whose products are exact. */
const SPLITTER = 134_217_729;

function productError(one: number, other: number, product: number): number {
  const [a, b] = halves(one);
  const [c, d] = halves(other);
  return b * d - (product - a * c - b * c - a * d);
}

function halves(value: number): readonly [number, number] {
  const big = value * SPLITTER;
  const upper = big - (big - value);
  return [upper, value - upper];
}

function hasHuge(numbers: Float64Array, members: BitSet): boolean {
  const limit = Math.min(numbers.length, members.words.length * 32);
  for (let member = 0; member < limit; member++) if (Math.abs(numbers[member]!) > LARGEST_SUMMED) return true;
  return false;
}
