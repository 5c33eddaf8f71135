/**
 * How many single-letter edits lead from one text to another: insert, delete, change, and swap of neighbours, where no
 * letter is edited twice (optimal string alignment). More than `most` is told as `most + 1`. Letters are code points.
 */
export function editDistance(one: string, other: string, most: number): number {
  const [a, b] = [Array.from(one), Array.from(other)];
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (let row = 1; row <= a.length; row++) {
    const current = [row];
    for (let column = 1; column <= b.length; column++) {
      const cost = a[row - 1] === b[column - 1] ? 0 : 1;
      let least = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + cost);
      const isSwap = row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1];
      if (isSwap) least = Math.min(least, beforeLast[column - 2]! + 1);
      current.push(least);
    }
    if (Math.min(...current) > most && row > 1 && Math.min(...last) > most) return most + 1;
    beforeLast = last;
    last = current;
  }
  return Math.min(last[b.length]!, most + 1);
}
