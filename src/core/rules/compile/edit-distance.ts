/**
 * How many single-letter edits lead from one text to another: insert, delete, change, and swap of neighbours, where no
 * letter is edited twice (optimal string alignment). More than `most` gives `most + 1`. Letters are code points. Only
 * alignments that are off by at most `most` letters are tried (Ukkonen 1985), so it takes time in proportion to length
 * × `most`.
 */
export function editDistance(one: string, other: string, most: number): number {
  const [a, b] = [Array.from(one), Array.from(other)];
  if (Math.abs(a.length - b.length) > most) return most + 1;
  const rows = [0, 1, 2].map(() => new Float64Array(b.length + 2).fill(Infinity)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let [beforeLast, last, current] = rows;
  for (let column = 0; column <= Math.min(b.length, most); column++) last[column] = column;
  for (let row = 1; row <= a.length; row++) {
    const [from, to] = [Math.max(1, row - most), Math.min(b.length, row + most)];
    current[from - 1] = from === 1 ? row : Infinity;
    current[to + 1] = Infinity;
    for (let column = from; column <= to; column++) {
      const cost = a[row - 1] === b[column - 1] ? 0 : 1;
      let least = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + cost);
      const isSwap = row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1];
      if (isSwap) least = Math.min(least, beforeLast[column - 2]! + 1);
      current[column] = least;
    }
    [beforeLast, last, current] = [last, current, beforeLast];
  }
  return Math.min(last[b.length]!, most + 1);
}
