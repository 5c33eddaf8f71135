// What rules cost at the least: loops over typed arrays, with everything prepared that a load or an edit can prepare.
// A match is a bit for each record, as in the core.

const ones = (count: number): Uint32Array => new Uint32Array((count + 31) >>> 5);

/** Bits of the numbers from `low` on and below `high`; NaN for none. */
export function between(numbers: Float64Array, low: number, high: number): Uint32Array {
  const bits = ones(numbers.length);
  const whole = numbers.length & ~31;
  for (let word = 0, at = 0; at < whole; word++) {
    let found = 0;
    for (let bit = 0; bit < 32; bit++, at++)
      found |= (Number(numbers[at]! >= low) & Number(numbers[at]! < high)) << bit;
    bits[word] = found;
  }
  for (let at = whole; at < numbers.length; at++)
    if (numbers[at]! >= low && numbers[at]! < high) bits[at >>> 5]! |= 1 << (at & 31);
  return bits;
}

/** The mean plus some sample deviations, in two plain passes. */
export function deviationsAbove(numbers: Float64Array, deviations: number): number {
  let count = 0;
  let sum = 0;
  for (let at = 0; at < numbers.length; at++)
    if (numbers[at] === numbers[at]) {
      count++;
      sum += numbers[at]!;
    }
  const mean = sum / count;
  let squares = 0;
  for (let at = 0; at < numbers.length; at++) {
    const away = numbers[at]! - mean;
    if (away === away) squares += away * away;
  }
  return mean + deviations * Math.sqrt(squares / (count - 1));
}

/** The number from which on a tenth is: a quickselect (Hoare 1961) over a copy. */
export function topTenth(numbers: Float64Array): number {
  const list = new Float64Array(numbers.length);
  let count = 0;
  for (let at = 0; at < numbers.length; at++) if (numbers[at] === numbers[at]) list[count++] = numbers[at]!;
  const wanted = count - Math.max(1, Math.floor(count / 10));
  let left = 0;
  let right = count - 1;
  while (left < right) {
    const pivot = list[(left + right) >>> 1]!;
    let low = left;
    let high = right;
    while (low <= high) {
      while (list[low]! < pivot) low++;
      while (list[high]! > pivot) high--;
      if (low > high) break;
      const held = list[low]!;
      list[low++] = list[high]!;
      list[high--] = held;
    }
    if (wanted <= high) right = high;
    else if (wanted >= low) left = low;
    else break;
  }
  return list[wanted]!;
}

/** Ids that occur more than once; 0 for a blank. */
export function repeated(ids: Uint32Array, idCount: number): Uint32Array {
  const counts = new Uint32Array(idCount);
  for (let at = 0; at < ids.length; at++) counts[ids[at]!]!++;
  counts[0] = 0;
  const bits = ones(ids.length);
  for (let at = 0; at < ids.length; at++) bits[at >>> 5]! |= Number(counts[ids[at]!]! > 1) << (at & 31);
  return bits;
}

/** Records whose text, one of many joined by line ends, contains a word. */
export function containing(
  { flat, starts, ids }: { readonly flat: string; readonly starts: Uint32Array; readonly ids: Uint32Array },
  word: string,
): Uint32Array {
  const has = new Uint8Array(starts.length);
  for (let at = flat.indexOf(word), id = 0; at >= 0; at = flat.indexOf(word, starts[id + 1])) {
    while (id + 1 < starts.length && starts[id + 1]! <= at) id++;
    has[id] = 1;
    if (id + 1 >= starts.length) break;
  }
  const bits = ones(ids.length);
  for (let at = 0; at < ids.length; at++) bits[at >>> 5]! |= has[ids[at]!]! << (at & 31);
  return bits;
}

/** Records where A > B * factor, and a text is the wanted one or C >= D. */
export function recordTest(
  [a, b, c, d]: readonly Float64Array[],
  { factor, ids, wanted }: { readonly factor: number; readonly ids: Uint32Array; readonly wanted: number },
): Uint32Array {
  const bits = ones(ids.length);
  for (let at = 0; at < ids.length; at++) {
    const holds = Number(a![at]! > b![at]! * factor) & (Number(ids[at] === wanted) | Number(c![at]! >= d![at]!));
    bits[at >>> 5]! |= holds << (at & 31);
  }
  return bits;
}
