/**
 * A sum of doubles without any rounding, kept as doubles that do not overlap (Shewchuk 1997, "Adaptive precision
 * floating-point arithmetic"): numbers can come and go in any order and what remains is their sum to the last bit. An
 * addition costs a few operations for each double kept, of which there are one to three for numbers of like size.
 * Numbers must be finite, and their sums too.
 */
export class ExactSum {
  private parts: number[] = [];

  add(value: number): void {
    const { parts } = this;
    let rest = value;
    let kept = 0;
    for (let at = 0; at < parts.length; at++) {
      const part = parts[at]!;
      const sum = rest + part;
      const shift = sum - rest;
      const error = rest - (sum - shift) + (part - shift);
      rest = sum;
      if (error !== 0) parts[kept++] = error;
    }
    parts.length = kept;
    if (rest !== 0 || kept === 0) parts.push(rest);
  }

  /** Adds the numbers of these members of an array, passing over NaN. Returns how many there were. */
  addMembers(numbers: Float64Array, words: Uint32Array): number {
    let count = 0;
    // Two running doubles take nearly everything; what is too small for both is added the slow way, so nothing is lost.
    let high = 0;
    let low = 0;
    for (let word = 0; word < words.length; word++) {
      const bits = words[word]!;
      if (bits === 0) continue;
      for (let bit = 0, member = word * 32; bit < 32; bit++, member++) {
        const value = numbers[member]!;
        if ((bits & (1 << bit)) === 0 || value !== value) continue;
        count++;
        const sum = high + value;
        const shift = sum - high;
        const error = high - (sum - shift) + (value - shift);
        high = sum;
        if (error === 0) continue;
        const lowSum = low + error;
        const lowShift = lowSum - low;
        const lost = low - (lowSum - lowShift) + (error - lowShift);
        low = lowSum;
        if (lost !== 0) this.add(lost);
      }
    }
    this.add(high);
    this.add(low);
    return count;
  }

  /**
   * The sum as two doubles: the one nearest to it, and the one nearest to the remainder. The pair depends on the sum
   * alone, not on the order of addition.
   */
  pair(): readonly [number, number] {
    const high = this.rounded();
    const rest = new ExactSum();
    rest.parts = this.parts.slice();
    rest.add(-high);
    return [high, rest.rounded()];
  }

  /**
   * The double nearest to the sum, half to even, never -0 (as in the summation recipe of Raymond Hettinger, after
   * Shewchuk).
   */
  rounded(): number {
    const { parts } = this;
    let at = parts.length - 1;
    if (at < 0) return 0;
    let high = parts[at]!;
    let low = 0;
    while (at > 0) {
      const part = parts[--at]!;
      const sum = high + part;
      low = part - (sum - high);
      high = sum;
      if (low !== 0) break;
    }
    // The remainder may decide a tie.
    if (at > 0 && low !== 0 && Math.sign(low) === Math.sign(parts[at - 1]!)) {
      const doubled = low * 2;
      const next = high + doubled;
      if (doubled === next - high) high = next;
    }
    return high + 0;
  }
}
