import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Geometry } from '../grid/engine/geometry';
import { rowsOnPaper } from './rows-on-paper';

test('a page ends with the row that fills it, counted among the rows that the grid shows', () => {
  const runs = fc.array(fc.record({ gap: fc.nat(4), length: fc.integer({ min: 1, max: 5 }), hidden: fc.boolean() }), {
    maxLength: 6,
  });
  fc.assert(
    fc.property(runs, fc.nat(8), fc.integer({ min: 1, max: 30 }), (parts, rest, most) => {
      let at = 0;
      const heights = parts.map(({ gap, length, hidden }) => {
        const top = at + gap;
        at = top + length;
        return [top, at - 1, hidden ? 0 : 40] as const;
      });
      const rowCount = at + rest;
      const inView = new Geometry({ widths: [], rowCount, frozenRows: 0, heights }).rowsShown(0, rowCount - 1);
      const page = inView.slice(0, most);
      expect(rowsOnPaper({ rowCount, heights }, most)).toEqual({
        last: page.at(-1) ?? -1,
        count: page.length,
        left: inView.length - page.length,
      });
    }),
  );
});
