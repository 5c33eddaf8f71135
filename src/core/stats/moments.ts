import type { BitSet } from '../sheet/bit-set';

/**
 * Count, sum and sum of squares of a changing set of numbers. Sums are pairs of doubles (about 32 digits: error-free
 * addition after Knuth, error-free product after Dekker), so that they do not drift when values come and go, and the
 * deviation of numbers with a large common part keeps its digits.
 */
export class Moments {
  count = 0;
  private sumHigh = 0;
  private sumLow = 0;
  private squareHigh = 0;
  private squareLow = 0;

  add(value: number): void {
    this.take(value, 1);
  }

  /** Takes out a value that was added before. */
  remove(value: number): void {
    this.take(value, -1);
  }

  /**
   * Adds the numbers of these members, passing over NaN: the same as `add` for each, in one loop. Squares, which only a
   * deviation needs, are left out on request; `deviation` is NaN then.
   */
  addAll(numbers: Float64Array, members: BitSet, squares: 'squares' | 'no-squares'): void {
    if (squares === 'squares') {
      members.forEach((member) => {
        if (!Number.isNaN(numbers[member]!)) this.add(numbers[member]!);
      });
      return;
    }
    let { count, sumHigh, sumLow } = this;
    const { words } = members;
    for (let word = 0; word < words.length; word++) {
      const bits = words[word]!;
      if (bits === 0) continue;
      for (let bit = 0, member = word * 32; bit < 32; bit++, member++) {
        const value = numbers[member]!;
        if ((bits & (1 << bit)) === 0 || value !== value) continue;
        const sum = sumHigh + value;
        const shift = sum - sumHigh;
        sumLow += sumHigh - (sum - shift) + (value - shift);
        sumHigh = sum;
        count++;
      }
    }
    this.count = count;
    this.sumHigh = sumHigh;
    this.sumLow = sumLow;
    this.squareHigh = NaN;
  }

  private take(value: number, sign: 1 | -1): void {
    this.count += sign;
    if (this.count === 0) {
      this.sumHigh = this.sumLow = this.squareHigh = this.squareLow = 0;
      return;
    }
    const term = sign * value;
    const sum = this.sumHigh + term;
    const shift = sum - this.sumHigh;
    this.sumLow += this.sumHigh - (sum - shift) + (term - shift);
    this.sumHigh = sum;
    const square = value * value;
    const big = value * SPLITTER;
    const upper = big - (big - value);
    const lower = value - upper;
    const squareError = lower * lower - (square - upper * upper - 2 * upper * lower);
    const signed = sign * square;
    const total = this.squareHigh + signed;
    const part = total - this.squareHigh;
    this.squareLow += this.squareHigh - (total - part) + (signed - part) + sign * squareError;
    this.squareHigh = total;
  }

  get sum(): number {
    return this.sumHigh + this.sumLow;
  }

  /** Arithmetic mean; NaN of no numbers. */
  get mean(): number {
    return this.sum / this.count;
  }

  /** Standard deviation: `sample` divides by n - 1 and needs two numbers, `population` by n and needs one; NaN otherwise. */
  deviation(spread: 'sample' | 'population'): number {
    const divisor = spread === 'sample' ? this.count - 1 : this.count;
    if (divisor < 1) return NaN;
    // Sum of squared deviations = squares - sum² / n, with sum² as a pair of doubles so that the leading digits cancel exactly.
    const square = this.sumHigh * this.sumHigh;
    const big = this.sumHigh * SPLITTER;
    const upper = big - (big - this.sumHigh);
    const lower = this.sumHigh - upper;
    const squareError = lower * lower - (square - upper * upper - 2 * upper * lower) + 2 * this.sumHigh * this.sumLow;
    const quotient = square / this.count;
    const product = quotient * this.count;
    const bigQuotient = quotient * SPLITTER;
    const upperQuotient = bigQuotient - (bigQuotient - quotient);
    const lowerQuotient = quotient - upperQuotient;
    const productError = upperQuotient * this.count - product + lowerQuotient * this.count;
    const rest = (square - product - productError + squareError) / this.count;
    const squares = this.squareHigh - quotient + (this.squareLow - rest);
    return Math.sqrt((squares < 0 ? 0 : squares) / divisor);
  }
}

/** 2^27 + 1: splits a double into two halves whose products are exact (Dekker 1971). */
const SPLITTER = 134_217_729;
