// What an edit costs at the least under five rules on its field, written by hand: a threshold, an average with
// deviations, the top tenth, repeats, and a scale from the least over the median to the greatest.

/** Numbers of one field that are edited one by one, all of them filled; which records each rule matches. */
export class HandEdited {
  readonly below: Uint8Array;
  readonly above: Uint8Array;
  readonly top: Uint8Array;
  readonly repeated: Uint8Array;
  /** The numbers in rising order, and the record of each. */
  private readonly sorted: Float64Array;
  private readonly rows: Int32Array;
  private sum = 0;
  private squares = 0;
  private readonly shift: number;

  constructor(
    private readonly numbers: Float64Array,
    private readonly threshold: number,
    private readonly deviations: number,
  ) {
    const count = numbers.length;
    this.rows = Int32Array.from(numbers.keys()).sort((a, b) => numbers[a]! - numbers[b]!);
    this.sorted = Float64Array.from(this.rows, (row) => numbers[row]!);
    this.shift = this.sorted[count >>> 1]!;
    for (const number of numbers) {
      this.sum += number - this.shift;
      this.squares += (number - this.shift) ** 2;
    }
    this.below = Uint8Array.from(numbers, (number) => Number(number < threshold));
    const [edge, tenth] = [this.edge, this.tenth];
    this.above = Uint8Array.from(numbers, (number) => Number(number > edge));
    this.top = Uint8Array.from(numbers, (number) => Number(number >= tenth));
    this.repeated = new Uint8Array(count);
    for (let at = 0; at < count; at++) this.repeated[this.rows[at]!] = Number(this.isRepeated(at));
  }

  private get edge(): number {
    const count = this.numbers.length;
    const mean = this.sum / count;
    return this.shift + mean + this.deviations * Math.sqrt((this.squares - this.sum * mean) / (count - 1));
  }

  private get tenth(): number {
    const count = this.numbers.length;
    return this.sorted[count - Math.max(1, Math.floor(count / 10))]!;
  }

  /** Where the stops of the scale are. */
  get stops(): readonly [number, number, number] {
    const { sorted } = this;
    return [sorted[0]!, sorted[sorted.length >>> 1]!, sorted.at(-1)!];
  }

  edit(row: number, number: number): void {
    const before = this.numbers[row]!;
    const [edge, tenth] = [this.edge, this.tenth];
    this.sum += number - before;
    this.squares += (number - this.shift) ** 2 - (before - this.shift) ** 2;
    this.move(row, before, number);
    this.numbers[row] = number;
    this.below[row] = Number(number < this.threshold);
    this.flip(this.above, [edge, this.edge], (each, by) => each > by);
    this.above[row] = Number(number > this.edge);
    this.flip(this.top, [tenth, this.tenth], (each, by) => each >= by);
    this.top[row] = Number(number >= this.tenth);
    for (const value of [before, number]) {
      const from = this.placeOf(value);
      for (let at = from; this.sorted[at] === value; at++) this.repeated[this.rows[at]!] = Number(this.isRepeated(at));
    }
  }

  /** Looks again at the numbers between where a threshold was and where it is. */
  private flip(
    flags: Uint8Array,
    [was, is]: readonly [number, number],
    holds: (number: number, by: number) => boolean,
  ): void {
    const high = Math.max(was, is);
    for (let at = this.placeOf(Math.min(was, is)); at < this.sorted.length && this.sorted[at]! <= high; at++)
      flags[this.rows[at]!] = Number(holds(this.sorted[at]!, is));
  }

  private isRepeated(at: number): boolean {
    const { sorted } = this;
    return sorted[at] === sorted[at - 1] || sorted[at] === sorted[at + 1];
  }

  /** Takes a number out of the order and puts another in, by moving what lies between. */
  private move(row: number, before: number, number: number): void {
    const { sorted, rows } = this;
    let from = this.placeOf(before);
    while (rows[from] !== row) from++;
    const to = number > before ? this.placeOf(number) - 1 : this.placeOf(number);
    if (to > from) {
      sorted.copyWithin(from, from + 1, to + 1);
      rows.copyWithin(from, from + 1, to + 1);
    } else {
      sorted.copyWithin(to + 1, to, from);
      rows.copyWithin(to + 1, to, from);
    }
    sorted[to] = number;
    rows[to] = row;
  }

  /** The first place whose number is not below another. */
  private placeOf(number: number): number {
    let [low, high] = [0, this.sorted.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.sorted[middle]! < number) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
