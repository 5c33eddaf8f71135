import type { BitSet } from '../values/bit-set';

/** Half the distance from 1 to the next double: the largest relative error of one operation. */
const UNIT = 2 ** -53;
/** Beyond these, squares or sums come near to leaving the doubles: then nothing is sure. */
const LARGEST_MIDDLE = 1e149;
const LARGEST_SQUARES = 1e298;
/** Below this, squares may have lost digits at the lower end of the doubles. */
const SMALLEST_SQUARES = 1e-290;
/** Numbers from which one near the middle is chosen. */
const SAMPLE = 9;

/** Where a number surely lies that is known only so well. */
export interface Bounds {
  readonly low: number;
  readonly high: number;
}

/** Numbers of one column, and which of them count. */
export interface Members {
  readonly numbers: Float64Array;
  readonly slots: BitSet;
}

/**
 * Sums of numbers and squares in plain doubles, less a number near their middle, with how much they may be off by
 * (shifted data: Chan, Golub and LeVeque 1983; error bounds of sums: Higham 2002, section 4.2). Not the mean itself is
 * wanted, but on which side of it each number lies, and there the bounds nearly always decide: a filter before exact
 * arithmetic (Fortune and Van Wyk 1993). A pass costs about two nanoseconds a number, an edit a few operations.
 */
export class ShiftedMoments {
  private count = 0;
  private readonly middle: number;
  private sum = 0;
  private squares = 0;
  /** The most that the sums may be off by. */
  private sumError = 0;
  private squaresError = 0;

  constructor(members: readonly Members[]) {
    this.middle = middleOf(members);
    for (const each of members) this.addAll(each);
    const growth = (this.count + 64) * 2 * UNIT;
    this.sumError = growth * Math.sqrt(this.count * this.squares);
    this.squaresError = growth * this.squares;
  }

  private addAll({ numbers, slots: { words } }: Members): void {
    const { middle } = this;
    let sumA = 0;
    let sumB = 0;
    let squaresA = 0;
    let squaresB = 0;
    let count = 0;
    const last = Math.min(words.length, (numbers.length + 31) >>> 5);
    for (let word = 0; word < last; word++) {
      const bits = words[word]!;
      const end = Math.min((word + 1) * 32, numbers.length);
      if (bits === 0xffffffff && (end & 31) === 0)
        for (let slot = word * 32; slot < end; slot += 2) {
          const a = numbers[slot]! - middle;
          const b = numbers[slot + 1]! - middle;
          if (a === a) {
            sumA += a;
            squaresA += a * a;
            count++;
          }
          if (b === b) {
            sumB += b;
            squaresB += b * b;
            count++;
          }
        }
      else if (bits !== 0)
        for (let slot = word * 32; slot < end; slot++) {
          const a = numbers[slot]! - middle;
          if ((bits & (1 << (slot & 31))) === 0 || a !== a) continue;
          sumA += a;
          squaresA += a * a;
          count++;
        }
    }
    this.sum += sumA + sumB;
    this.squares += squaresA + squaresB;
    this.count += count;
  }

  /** One number goes, another comes; NaN for none. */
  edit(before: number, now: number): void {
    this.take(before, -1);
    this.take(now, 1);
  }

  private take(value: number, sign: 1 | -1): void {
    if (value !== value) return;
    const away = value - this.middle;
    this.count += sign;
    this.sum += sign * away;
    this.squares += sign * away * away;
    this.sumError += 4 * UNIT * (Math.abs(this.sum) + Math.abs(away));
    this.squaresError += 8 * UNIT * (Math.abs(this.squares) + away * away);
  }

  /** About the standard deviation; NaN of no numbers. */
  get deviation(): number {
    return Math.sqrt(Math.max(0, this.squares - (this.sum * this.sum) / this.count) / this.count);
  }

  /**
   * Where the mean, or what lies a number of standard deviations from it (below where it is negative), surely is, also
   * as exact arithmetic rounds it. Undefined where nothing is sure.
   */
  bounds(deviations: number, spread: 'sample' | 'population'): Bounds | undefined {
    const { count, sum, squares, middle, sumError } = this;
    if (count < 2 || Math.abs(middle) > LARGEST_MIDDLE) return undefined;
    if (!(squares > SMALLEST_SQUARES && squares < LARGEST_SQUARES)) return undefined;
    const mean = middle + sum / count;
    const meanError = sumError / count + 4 * UNIT * (Math.abs(middle) + Math.abs(mean));
    if (deviations === 0) return around(mean, meanError + 32 * UNIT * Math.abs(mean));
    const scatter = squares - (sum * sum) / count;
    const scatterError =
      this.squaresError +
      (2 * Math.abs(sum) * sumError + sumError * sumError) / count +
      8 * UNIT * (squares + (sum * sum) / count);
    // Where numbers are nearly equal, their deviation drowns in what the sums may be off by.
    if (!(scatter > 16 * scatterError)) return undefined;
    const divisor = spread === 'sample' ? count - 1 : count;
    const deviation = Math.sqrt(scatter / divisor);
    // Exact arithmetic ends in a difference of two doubles, each with a second one for what it is off by.
    const rounded = 16 * UNIT + (16 * UNIT * UNIT * count * mean * mean) / scatter;
    const deviationError = scatterError / Math.sqrt(divisor * (scatter - scatterError)) + rounded * deviation;
    const at = mean + deviations * deviation;
    const error = meanError + Math.abs(deviations) * deviationError + 32 * UNIT * (Math.abs(mean) + Math.abs(at));
    return around(at, error);
  }
}

const around = (at: number, error: number): Bounds | undefined =>
  Number.isFinite(at) && Number.isFinite(error) ? { low: at - error, high: at + error } : undefined;

/** The middle one of the first numbers; 0 of none. */
function middleOf(members: readonly Members[]): number {
  const first: number[] = [];
  for (const { numbers, slots } of members)
    for (let word = 0; word < slots.words.length && first.length < SAMPLE; word++)
      for (let bits = slots.words[word] ?? 0; bits !== 0 && first.length < SAMPLE; bits &= bits - 1) {
        const number = numbers[word * 32 + 31 - Math.clz32(bits & -bits)] ?? NaN;
        if (number === number) first.push(number);
      }
  return first.toSorted((a, b) => a - b)[first.length >>> 1] ?? 0;
}
