import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Geometry } from './geometry';
import { isSingle, isWholeColumns, moveCell, selectCell, selectedArea, selectedAreas } from './selection';

const layout = { widths: [100, 0, 80, 120], rowCount: 40, frozenRows: 1 };
const geometry = new Geometry({ ...layout, heights: [[5, 7, 0]] });

describe('a selection', () => {
  test('is the same area from whichever corner it was begun', () => {
    const corner = fc.record({ column: fc.nat(9), position: fc.nat(99) });
    fc.assert(
      fc.property(corner, corner, (anchor, focus) => {
        expect(selectedArea({ anchor, focus })).toEqual(selectedArea({ anchor: focus, focus: anchor }));
        expect(isSingle({ anchor, focus })).toBe(anchor.column === focus.column && anchor.position === focus.position);
      }),
    );
  });

  test('of several ranges has the one that is worked on first, and is not single', () => {
    const also = [{ left: 2, right: 3, top: 4, bottom: 5 }];
    const selection = { ...selectCell({ column: 1, position: 2 }), also };
    expect(selectedAreas(selection)).toEqual([{ left: 1, right: 1, top: 2, bottom: 2 }, ...also]);
    expect(isSingle(selection)).toBe(false);
    expect(isWholeColumns({ left: 0, right: 0, top: 0, bottom: 39 }, geometry)).toBe(true);
    expect(isWholeColumns({ left: 0, right: 0, top: 1, bottom: 39 }, geometry)).toBe(false);
  });

  test.each([
    {
      says: 'right over a hidden field',
      from: { column: 0, position: 2 },
      by: { columns: 1, rows: 0 },
      to: { column: 2, position: 2 },
    },
    {
      says: 'down over rows out of view',
      from: { column: 0, position: 4 },
      by: { columns: 0, rows: 1 },
      to: { column: 0, position: 8 },
    },
    {
      says: 'up over them',
      from: { column: 0, position: 8 },
      by: { columns: 0, rows: -1 },
      to: { column: 0, position: 4 },
    },
    {
      says: 'not beyond the last field',
      from: { column: 3, position: 2 },
      by: { columns: 1, rows: 0 },
      to: { column: 3, position: 2 },
    },
    {
      says: 'to the last row at most',
      from: { column: 0, position: 30 },
      by: { columns: 0, rows: Infinity },
      to: { column: 0, position: 39 },
    },
  ])('moves $says', ({ from, by, to }) => expect(moveCell(from, by, geometry)).toEqual(to));
});
