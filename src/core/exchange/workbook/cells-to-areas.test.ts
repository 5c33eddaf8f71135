import fc from 'fast-check';
import { expect, test } from 'vitest';
import { areasOf } from './cells-to-areas';

const place = fc.record({ column: fc.nat(5), position: fc.nat(8) });

test('areas hold every cell once and no other; the top-left one comes first', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(place, { selector: ({ column, position }) => `${column} ${position}`, maxLength: 30 }),
      (cells) => {
        const areas = areasOf(cells);
        const covered = areas.flatMap(({ left, right, top, bottom }) =>
          Array.from({ length: right - left + 1 }, (_, across) =>
            Array.from({ length: bottom - top + 1 }, (__, down) => `${left + across} ${top + down}`),
          ).flat(),
        );
        expect(covered.toSorted()).toEqual(cells.map(({ column, position }) => `${column} ${position}`).toSorted());
        const first = areas[0];
        if (first) expect(Math.min(...cells.map(({ column }) => column))).toBe(first.left);
      },
    ),
  );
});

test('a block of cells is one area', () => {
  const block = [1, 2, 3].flatMap((column) => [4, 5, 6, 7].map((position) => ({ column, position })));
  expect(areasOf(block)).toEqual([{ left: 1, right: 3, top: 4, bottom: 7 }]);
});
