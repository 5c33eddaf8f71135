import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { askedArea, isCovered } from '../asked-area';
import { Geometry, GUTTER_PX, HEAD_PX, ROW_PX } from './geometry';
import { hitTest } from './hit-test';

const geometry = new Geometry([100, 60, 140, 80], 1000, 1);
const view = { width: 300, height: 200 };
const cell = fc.record({ column: fc.integer({ min: 0, max: 3 }), position: fc.integer({ min: 0, max: 999 }) });
const scroll = fc.record({ left: fc.integer({ min: 0, max: 200 }), top: fc.integer({ min: 0, max: 26_000 }) });

test('after scrolling to a cell, a click in its middle hits it', () => {
  fc.assert(
    fc.property(cell, scroll, (wanted, from) => {
      const to = geometry.scrollTo(wanted, from, view);
      const box = geometry.boxInView({ left: wanted.column, right: wanted.column, top: wanted.position, bottom: wanted.position }, to);
      expect(hitTest(geometry, to, { x: box.x + box.width / 2, y: box.y + box.height / 2 })).toEqual({ kind: 'cell', cell: wanted });
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
  ])('%j', (point, hit) => expect(hitTest(geometry, { left: 0, top: 0 }, point)).toEqual(hit));

  test('a frozen row stays under the point while the rest scrolls', () => {
    const point = { x: GUTTER_PX + 5, y: HEAD_PX + 3 };
    expect(hitTest(geometry, { left: 0, top: 5000 }, point)).toEqual({ kind: 'cell', cell: { column: 0, position: 0 } });
  });
});

test('a view that is covered lies within what was asked', () => {
  fc.assert(
    fc.property(scroll, scroll, (one, other) => {
      const asked = askedArea(geometry.visible(one, view), geometry);
      const visible = geometry.visible(other, view);
      expect(isCovered(geometry.visible(one, view), asked)).toBe(true);
      if (isCovered(visible, asked))
        expect(visible.top >= asked.top && visible.bottom <= asked.bottom && visible.left >= asked.left && visible.right <= asked.right).toBe(true);
    }),
  );
});
