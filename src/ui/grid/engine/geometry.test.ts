import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { askedArea, isCovered } from '../asked-area';
import { Geometry, GUTTER_PX, HEAD_PX, ROW_PX } from './geometry';
import { landingAt, selectedHeads } from './drag-heads';
import { hitTest } from './hit-test';
import { moveCell } from './selection';

const LAYOUT = { widths: [100, 60, 140, 80], rowCount: 1000, frozenRows: 1 };
const geometry = new Geometry(LAYOUT);
const view = { width: 300, height: 200 };
const cell = fc.record({ column: fc.integer({ min: 0, max: 3 }), position: fc.integer({ min: 0, max: 999 }) });
const scroll = fc.record({ left: fc.integer({ min: 0, max: 200 }), top: fc.integer({ min: 0, max: 26_000 }) });

test('after scrolling to a cell, a click in its middle hits it, also where fields are frozen', () => {
  fc.assert(
    fc.property(cell, scroll, fc.constantFrom(0, 1), (wanted, from, frozenColumns) => {
      const geometry = new Geometry({ ...LAYOUT, frozenColumns });
      const to = geometry.scrollTo(wanted, from, view);
      const box = geometry.boxInView(
        { left: wanted.column, right: wanted.column, top: wanted.position, bottom: wanted.position },
        to,
      );
      expect(
        hitTest(geometry, { scroll: to, selected: null }, { x: box.x + box.width / 2, y: box.y + box.height / 2 }),
      ).toEqual({
        kind: 'cell',
        cell: wanted,
      });
      expect(geometry.scrollTo(wanted, to, view)).toEqual(to);
    }),
  );
});

describe('what lies under a point', () => {
  test.each([
    [{ x: 5, y: 5 }, { kind: 'corner' }],
    [
      { x: GUTTER_PX + 5, y: 5 },
      { kind: 'column', column: 0 },
    ],
    [
      { x: 5, y: HEAD_PX + 2 },
      { kind: 'row', position: 0 },
    ],
    [
      { x: GUTTER_PX + 101, y: HEAD_PX + ROW_PX + 2 },
      { kind: 'cell', cell: { column: 1, position: 1 } },
    ],
    [{ x: GUTTER_PX + 380, y: 60 }, { kind: 'outside' }],
  ])('%j', (point, hit) =>
    expect(hitTest(geometry, { scroll: { left: 0, top: 0 }, selected: null }, point)).toEqual(hit),
  );

  test('a frozen row stays under the point while the rest scrolls', () => {
    const point = { x: GUTTER_PX + 5, y: HEAD_PX + 3 };
    expect(hitTest(geometry, { scroll: { left: 0, top: 5000 }, selected: null }, point)).toEqual({
      kind: 'cell',
      cell: { column: 0, position: 0 },
    });
  });
});

test('a view that is covered lies within what was asked', () => {
  fc.assert(
    fc.property(scroll, scroll, (one, other) => {
      const asked = askedArea(geometry.visible(one, view), geometry);
      const visible = geometry.visible(other, view);
      expect(isCovered(geometry.visible(one, view), asked)).toBe(true);
      if (isCovered(visible, asked))
        expect(
          visible.top >= asked.top &&
            visible.bottom <= asked.bottom &&
            visible.left >= asked.left &&
            visible.right <= asked.right,
        ).toBe(true);
    }),
  );
});

/** Rows of other heights, some out of view, and merged cells: the same questions answered by adding up row by row. */
const heights = fc
  .uniqueArray(fc.record({ at: fc.integer({ min: 0, max: 40 }), px: fc.constantFrom(0, 16, 60) }), {
    selector: ({ at }) => at,
    maxLength: 12,
  })
  .map((rows) => rows.sort((a, b) => a.at - b.at).map(({ at, px }) => [at, at, px] as const));

test('rows of uneven heights lie one under another', () => {
  fc.assert(
    fc.property(heights, fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 1200 }), (runs, position, y) => {
      const uneven = new Geometry({ widths: [100, 0, 80], rowCount: 42, frozenRows: 1, heights: runs });
      const heightOf = (row: number) => runs.find(([top]) => top === row)?.[2] ?? ROW_PX;
      const topOf = (row: number) =>
        HEAD_PX + Array.from({ length: row }, (_, at) => heightOf(at)).reduce<number>((sum, px) => sum + px, 0);
      expect(uneven.rowTop(position)).toBe(topOf(position));
      expect(uneven.rowHeight(position)).toBe(heightOf(position));
      expect(uneven.height).toBe(topOf(42));
      const under = uneven.positionAt(y + HEAD_PX);
      if (y + HEAD_PX < topOf(42)) expect(topOf(under) <= y + HEAD_PX && topOf(under + 1) > y + HEAD_PX).toBe(true);
      expect(uneven.rowsShown(0, 41)).toEqual(
        Array.from({ length: 42 }, (_, at) => at).filter((at) => heightOf(at) > 0),
      );
      expect(uneven.withHeight(position, 33).rowHeight(position)).toBe(33);
      expect(uneven.withHeight(position, 33).rowTop(42)).toBe(topOf(42) - heightOf(position) + 33);
    }),
  );
});

test('steps pass over what is out of view, and stay where nothing is left that way', () => {
  const some = new Geometry({
    widths: [100, 0, 80, 0],
    rowCount: 6,
    frozenRows: 1,
    heights: [[2, 3, 0] as const, [5, 5, 0] as const],
  });
  const from = (column: number, position: number, [columns, rows]: readonly [number, number]) =>
    moveCell({ column, position }, { columns, rows }, some);
  expect(from(0, 1, [1, 1])).toEqual({ column: 2, position: 4 });
  expect(from(2, 4, [1, 1])).toEqual({ column: 2, position: 4 });
  expect(from(2, 4, [-1, -1])).toEqual({ column: 0, position: 1 });
  expect(from(0, 0, [Infinity, Infinity])).toEqual({ column: 2, position: 4 });
});

test('merged cells are hit, outlined and left as one', () => {
  const merged = { left: 1, top: 2, right: 2, bottom: 4 };
  const some = new Geometry({ widths: [100, 60, 140, 80], rowCount: 10, frozenRows: 1, merges: [merged] });
  const box = some.box({ column: 2, position: 3 });
  expect(box).toEqual({ x: GUTTER_PX + 100, y: HEAD_PX + 2 * ROW_PX, width: 200, height: 3 * ROW_PX });
  const hit = hitTest(some, { scroll: { left: 0, top: 0 }, selected: null }, { x: box.x + 150, y: box.y + 60 });
  expect(hit).toEqual({ kind: 'cell', cell: { column: 1, position: 2 } });
  expect(some.shownArea({ left: 1, top: 2, right: 1, bottom: 2 })).toEqual(merged);
  expect(some.shownArea({ left: 0, top: 2, right: 1, bottom: 2 })).toEqual({ left: 0, top: 2, right: 1, bottom: 2 });
});

describe('edges and the handle', () => {
  const around = { scroll: { left: 0, top: 0 }, selected: { left: 0, right: 1, top: 1, bottom: 2 } };
  test.each([
    [
      { x: GUTTER_PX + 99, y: 5 },
      { kind: 'column-edge', column: 0 },
    ],
    [
      { x: GUTTER_PX + 102, y: 5 },
      { kind: 'column-edge', column: 0 },
    ],
    [
      { x: GUTTER_PX + 380, y: 5 },
      { kind: 'column-edge', column: 3 },
    ],
    [
      { x: 10, y: HEAD_PX + ROW_PX - 1 },
      { kind: 'row-edge', position: 0 },
    ],
    [{ x: GUTTER_PX + 158, y: HEAD_PX + 3 * ROW_PX - 2 }, { kind: 'handle' }],
    [
      { x: GUTTER_PX + 140, y: HEAD_PX + 3 * ROW_PX - 10 },
      { kind: 'cell', cell: { column: 1, position: 2 } },
    ],
  ])('%j', (point, hit) => expect(hitTest(geometry, around, point)).toEqual(hit));
});

test.each([
  ['columns', { x: GUTTER_PX + 10, y: 5 }, 0],
  ['columns', { x: GUTTER_PX + 90, y: 5 }, 1],
  ['columns', { x: GUTTER_PX + 155, y: 5 }, 2],
  ['rows', { x: 5, y: HEAD_PX + ROW_PX * 2 + 3 }, 2],
  ['rows', { x: 5, y: HEAD_PX + ROW_PX * 2 + 24 }, 3],
] as const)('%s let go at %j land before %i', (axis, point, expected) => {
  expect(landingAt(geometry, axis, { scroll: { left: 0, top: 0 }, point })).toBe(expected);
});

test('only heads of what is selected from edge to edge are dragged, and never all of them', () => {
  const fields = { left: 1, right: 2, top: 0, bottom: 999 };
  expect(selectedHeads(geometry, { kind: 'column', column: 2 }, fields)).toBe('columns');
  expect(selectedHeads(geometry, { kind: 'column', column: 3 }, fields)).toBeNull();
  expect(selectedHeads(geometry, { kind: 'row', position: 4 }, { left: 0, right: 3, top: 4, bottom: 4 })).toBe('rows');
  expect(selectedHeads(geometry, { kind: 'row', position: 4 }, { left: 0, right: 2, top: 4, bottom: 4 })).toBeNull();
  expect(selectedHeads(geometry, { kind: 'column', column: 2 }, { ...fields, left: 0, right: 3 })).toBeNull();
});
