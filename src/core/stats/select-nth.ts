/** From this many on, the n-th is first looked for in a sample. */
const LARGE = 600;

/**
 * The n-th number in rising order, from 0: Floyd and Rivest (1975), algorithm 489. The numbers are moved so that those
 * before the n-th place are not greater, and those behind it not less. None may be NaN. Cost: about one and a half
 * comparisons a number.
 */
export function selectNth(numbers: Float64Array, nth: number): number {
  select(numbers, nth, { left: 0, right: numbers.length - 1 });
  return numbers[nth] ?? NaN;
}

function select(numbers: Float64Array, nth: number, within: { readonly left: number; readonly right: number }): void {
  let { left, right } = within;
  while (right > left) {
    if (right - left > LARGE) {
      const size = right - left + 1;
      const from = nth - left + 1;
      const log = Math.log(size);
      const sample = 0.5 * Math.exp((2 * log) / 3);
      const spread = 0.5 * Math.sqrt((log * sample * (size - sample)) / size) * Math.sign(from - size / 2);
      select(numbers, nth, {
        left: Math.max(left, Math.floor(nth - (from * sample) / size + spread)),
        right: Math.min(right, Math.floor(nth + ((size - from) * sample) / size + spread)),
      });
    }
    const pivot = numbers[nth]!;
    let low = left;
    let high = right;
    swap(numbers, left, nth);
    if (numbers[right]! > pivot) swap(numbers, right, left);
    while (low < high) {
      swap(numbers, low++, high--);
      while (numbers[low]! < pivot) low++;
      while (numbers[high]! > pivot) high--;
    }
    if (numbers[left] === pivot) swap(numbers, left, high);
    else swap(numbers, ++high, right);
    if (high <= nth) left = high + 1;
    if (nth <= high) right = high - 1;
  }
}

function swap(numbers: Float64Array, one: number, other: number): void {
  const held = numbers[one]!;
  numbers[one] = numbers[other]!;
  numbers[other] = held;
}
