import fc from 'fast-check';
import { expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { lastBeneath, parentRows } from './levels';

test('what is beneath a row are the rows further in, up to the next that is not', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 10, maxLength: 10 }), (given) => {
      const sheet = makeSheet();
      sheet.apply({ kind: 'change-rows', rows: given.map((level, at) => ({ id: `r${at}`, level: level || null })) });
      // The header is the first row, and stands at the edge.
      const levels = [0, ...given];
      levels.forEach((own, position) => {
        const next = levels.findIndex((level, at) => at > position && level <= own);
        expect(lastBeneath(sheet, position)).toBe(next < 0 ? levels.length - 1 : next - 1);
      });
      expect(parentRows(sheet)).toEqual(
        levels.flatMap((own, position) => ((levels[position + 1] ?? 0) > own ? [position] : [])),
      );
    }),
  );
});
