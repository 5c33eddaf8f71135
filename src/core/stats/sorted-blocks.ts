/** Numbers to a block; a block of twice as many is split. */
const BLOCK = 512;

/**
 * Numbers in rising order that can come and go, equal ones as often as they were added. They lie in blocks, so that an
 * edit moves a few hundred numbers, not all; the n-th is found by counting along the blocks.
 */
export class SortedBlocks {
  count = 0;
  /** Blocks that were never edited are views of the array that was sorted first. */
  private blocks: (number[] | Float64Array)[] = [];

  /** Numbers in any order, none of them NaN. The array is taken over and sorted. */
  constructor(numbers = new Float64Array(0)) {
    const sorted = numbers.sort();
    for (let at = 0; at < sorted.length; at += BLOCK) this.blocks.push(sorted.subarray(at, at + BLOCK));
    this.count = sorted.length;
  }

  /** A block that can be edited. */
  private openBlock(at: number): number[] | undefined {
    const block = this.blocks[at];
    if (!(block instanceof Float64Array)) return block;
    const open = Array.from(block);
    this.blocks[at] = open;
    return open;
  }

  add(value: number): void {
    this.count++;
    const at = this.blockOf(value);
    const block = this.openBlock(at);
    if (!block) {
      this.blocks.push([value]);
      return;
    }
    block.splice(lowerBound(block, value), 0, value);
    if (block.length >= 2 * BLOCK) this.blocks.splice(at, 1, block.slice(0, BLOCK), block.slice(BLOCK));
  }

  /** Takes out one number equal to `value`, which must be there. */
  remove(value: number): void {
    const at = this.blockOf(value);
    const block = this.openBlock(at);
    const place = block ? lowerBound(block, value) : -1;
    if (block?.[place] !== value) throw new RangeError(`${value} is not among the numbers`);
    block.splice(place, 1);
    if (block.length === 0) this.blocks.splice(at, 1);
    this.count--;
  }

  /** The number at a place in rising order, from 0; NaN beyond the ends. */
  at(index: number): number {
    if (index < 0) return NaN;
    let rest = index;
    for (const block of this.blocks) {
      if (rest < block.length) return block[rest]!;
      rest -= block.length;
    }
    return NaN;
  }

  get least(): number {
    return this.blocks[0]?.[0] ?? NaN;
  }

  get greatest(): number {
    return this.blocks.at(-1)?.at(-1) ?? NaN;
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

  /** The first block that may hold a value, or the last block. */
  private blockOf(value: number): number {
    let low = 0;
    let high = this.blocks.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.blocks[middle]!.at(-1)! < value) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

function lowerBound(sorted: readonly number[], value: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
