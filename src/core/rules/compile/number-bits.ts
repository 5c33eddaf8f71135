/**
 * The loops that hold the numbers of a column against limits, 32 results to a word. Comparisons become bits without
 * branches, four numbers at a time: about two nanoseconds a number, whatever share of them matches. NaN, which stands
 * for no number, matches nothing.
 */

export interface Limits {
  readonly low: number;
  readonly high: number;
}

/** Sets the bit of every number from `low` to `high`, both included, and clears the others. */
export function setWithin(numbers: Float64Array, slotCount: number, { low, high, words }: Limits & Words): void {
  const whole = slotCount & ~31;
  let slot = 0;
  for (let word = 0; slot < whole; word++) {
    let bits = 0;
    for (let bit = 0; bit < 32; bit += 4, slot += 4) {
      const a = numbers[slot]!;
      const b = numbers[slot + 1]!;
      const c = numbers[slot + 2]!;
      const d = numbers[slot + 3]!;
      bits |=
        ((Number(a >= low) & Number(a <= high)) |
          ((Number(b >= low) & Number(b <= high)) << 1) |
          ((Number(c >= low) & Number(c <= high)) << 2) |
          ((Number(d >= low) & Number(d <= high)) << 3)) <<
        bit;
    }
    words[word] = bits;
  }
  if (slot < slotCount) words[slot >>> 5] = 0;
  for (; slot < slotCount; slot++)
    if (numbers[slot]! >= low && numbers[slot]! <= high) words[slot >>> 5]! |= 1 << (slot & 31);
}

/** Sets the bit of every number less than `low` or greater than `high`, and clears the others. */
export function setOutside(numbers: Float64Array, slotCount: number, { low, high, words }: Limits & Words): void {
  const whole = slotCount & ~31;
  let slot = 0;
  for (let word = 0; slot < whole; word++) {
    let bits = 0;
    for (let bit = 0; bit < 32; bit += 4, slot += 4) {
      const a = numbers[slot]!;
      const b = numbers[slot + 1]!;
      const c = numbers[slot + 2]!;
      const d = numbers[slot + 3]!;
      bits |=
        (Number(a < low) |
          Number(a > high) |
          ((Number(b < low) | Number(b > high)) << 1) |
          ((Number(c < low) | Number(c > high)) << 2) |
          ((Number(d < low) | Number(d > high)) << 3)) <<
        bit;
    }
    words[word] = bits;
  }
  if (slot < slotCount) words[slot >>> 5] = 0;
  for (; slot < slotCount; slot++)
    if (numbers[slot]! < low || numbers[slot]! > high) words[slot >>> 5]! |= 1 << (slot & 31);
}

/** Whether any number lies from `low` to `high`, both included. */
export function hasWithin(numbers: Float64Array, slotCount: number, { low, high }: Limits): boolean {
  const whole = slotCount & ~3;
  let found = 0;
  let slot = 0;
  for (; slot < whole; slot += 4) {
    const a = numbers[slot]!;
    const b = numbers[slot + 1]!;
    const c = numbers[slot + 2]!;
    const d = numbers[slot + 3]!;
    found |=
      (Number(a >= low) & Number(a <= high)) |
      (Number(b >= low) & Number(b <= high)) |
      (Number(c >= low) & Number(c <= high)) |
      (Number(d >= low) & Number(d <= high));
  }
  for (; slot < slotCount; slot++) found |= Number(numbers[slot]! >= low && numbers[slot]! <= high);
  return found !== 0;
}

interface Words {
  /** Where the bits are put: a word for every 32 slots. */
  readonly words: Uint32Array;
}
