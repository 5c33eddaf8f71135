import fc from 'fast-check';
import { expect, test } from 'vitest';
import { editDistance } from './edit-distance';

/** The recurrence of optimal string alignment as it is written down (Boytsov 2011, 2.2), every cell of it. */
function plainDistance(a: string, b: string): number {
  const rows: number[][] = [];
  for (let i = 0; i <= a.length; i++) {
    rows.push([]);
    for (let j = 0; j <= b.length; j++) {
      if (i === 0 || j === 0) rows[i]!.push(i + j);
      else {
        let least = Math.min(
          rows[i - 1]![j]! + 1,
          rows[i]![j - 1]! + 1,
          rows[i - 1]![j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1),
        );
        if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
          least = Math.min(least, rows[i - 2]![j - 2]! + 1);
        rows[i]!.push(least);
      }
    }
  }
  return rows[a.length]![b.length]!;
}

const word = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 9 }).map((letters) => letters.join(''));

test('the distance within a band is the distance, or beyond the band', () => {
  fc.assert(
    fc.property(word, word, fc.nat(3), (one, other, most) => {
      expect(editDistance(one, other, most)).toBe(Math.min(plainDistance(one, other), most + 1));
    }),
    { numRuns: 5000 },
  );
});

// The whole table would have 1e10 cells: the test would not end.
test('long answers are compared in a band', () => {
  const answer = 'ab'.repeat(50_000);
  expect(editDistance(answer, `${answer.slice(0, -1)}c`, 2)).toBe(1);
});
