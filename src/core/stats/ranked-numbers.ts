import { itemAt } from '../values/item-at';
import { selectNth } from './select-nth';

/** Numbers of a block beyond which it is divided where a place in it is asked for. */
const BLOCK = 512;

/** Numbers that lie between two others, in no order. */
interface Block {
  numbers: Float64Array;
  /** How many there are; behind them there is room. */
  count: number;
  /** Not greater than any of them, and not less than any in the blocks before; -Infinity in the first. */
  least: number;
}

/**
 * Numbers that can come and go, equal ones as often as they were added, and the n-th of them in rising order. They are
 * sorted only so far as it is asked for (incremental quicksort: Paredes and Navarro 2006): until the first edit the
 * n-th is selected among all; then they lie in blocks one above another, which are divided around the places that are
 * asked for. A place near one asked for before costs a microsecond, an edit the search in a block.
 */
export class RankedNumbers {
  count: number;
  private readonly blocks: Block[];
  private wasEdited = false;
  /** Known until the next edit. */
  private ends: { readonly least: number; readonly greatest: number } | null = null;

  /** Numbers in any order, none of them NaN. The array is taken over. */
  constructor(numbers = new Float64Array(0)) {
    this.blocks = [{ numbers, count: numbers.length, least: -Infinity }];
    this.count = numbers.length;
  }

  add(value: number): void {
    this.wasEdited = true;
    this.ends = null;
    this.count++;
    const block = itemAt(this.blocks, this.blockOf(value));
    if (block.count === block.numbers.length) {
      const roomier = new Float64Array(Math.max(16, Math.ceil(block.count * 1.25)));
      roomier.set(block.numbers);
      block.numbers = roomier;
    }
    block.numbers[block.count++] = value;
  }

  /** Takes out one number equal to `value`, which must be there. */
  remove(value: number): void {
    this.wasEdited = true;
    this.ends = null;
    // Where a block begins with it, equal ones may lie before as well.
    for (let at = this.blockOf(value); at >= 0; at--) {
      const block = itemAt(this.blocks, at);
      const place = placeOf(block, value);
      if (place >= 0) {
        block.numbers[place] = block.numbers[--block.count] ?? NaN;
        this.count--;
        return;
      }
      if (block.least < value) break;
    }
    throw new RangeError(`${value} is not among the numbers`);
  }

  /** The number at a place in rising order, from 0; NaN beyond the ends. */
  at(index: number): number {
    if (!(index >= 0 && index < this.count)) return NaN;
    let rest = index;
    let place = 0;
    let block = itemAt(this.blocks, place);
    while (rest >= block.count) {
      rest -= block.count;
      block = itemAt(this.blocks, ++place);
    }
    if (this.wasEdited && block.count > 2 * BLOCK) {
      const before = Math.max(0, rest - BLOCK / 2);
      if (before > 0) {
        this.divide(place++, before);
        rest -= before;
      }
      if (itemAt(this.blocks, place).count > 2 * BLOCK) this.divide(place, rest + BLOCK / 2);
      block = itemAt(this.blocks, place);
    }
    const { numbers, count } = block;
    return selectNth(numbers.subarray(0, count), rest);
  }

  /** Makes two blocks of one, the second of those from a place on. */
  private divide(at: number, from: number): void {
    const block = itemAt(this.blocks, at);
    const numbers = block.numbers.subarray(0, block.count);
    const least = selectNth(numbers, from);
    // Each with its own room: what is added to one must not write over the other.
    const above = { numbers: numbers.slice(from), count: block.count - from, least };
    this.blocks.splice(at + 1, 0, above);
    block.numbers = numbers.subarray(0, from);
    block.count = from;
  }

  get least(): number {
    return (this.ends ??= this.findEnds()).least;
  }

  get greatest(): number {
    return (this.ends ??= this.findEnds()).greatest;
  }

  /** The least and the greatest, which bars and scales ask for with each cell; NaN of none. */
  private findEnds(): { readonly least: number; readonly greatest: number } {
    if (this.wasEdited) return { least: this.at(0), greatest: this.at(this.count - 1) };
    const { numbers } = itemAt(this.blocks, 0);
    let least = numbers[0] ?? NaN;
    let greatest = least;
    for (let at = 1; at < numbers.length; at++) {
      const number = numbers[at] ?? NaN;
      if (number < least) least = number;
      if (number > greatest) greatest = number;
    }
    return { least, greatest };
  }

  /** The p-quantile, 0 to 1, by linear interpolation at 1 + (N - 1) p: Hyndman and Fan (1996), type 7. NaN of none. */
  quantile(p: number): number {
    const place = (this.count - 1) * p;
    const below = Math.floor(place);
    const low = this.at(below);
    if (below === place) return low;
    const high = this.at(below + 1);
    return low + (high - low) * (place - below);
  }

  /** The last block that begins with no more than a value. */
  private blockOf(value: number): number {
    let low = 0;
    let high = this.blocks.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if (itemAt(this.blocks, middle).least <= value) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}

/** Where a number stands in a block; -1 for nowhere. */
function placeOf({ numbers, count }: Block, value: number): number {
  for (let at = 0; at < count; at++) if (numbers[at] === value) return at;
  return -1;
}
