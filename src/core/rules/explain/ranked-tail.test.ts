import { ascending, descending, sort } from 'd3-array';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { rankedTail } from './ranked-tail';

test('the cells at the edge are those of the whole list, sorted by d3-array and cut there', () => {
  const values = fc.array(fc.oneof(fc.integer({ min: 0, max: 9 }), fc.constant('')), { minLength: 1, maxLength: 25 });
  fc.assert(
    fc.property(
      values,
      fc.integer({ min: 1, max: 12 }),
      fc.constantFrom('top' as const, 'bottom' as const),
      (column, n, is) => {
        const sheet = sheetFromTable(
          { rows: [['Name', 'Value'], ...column.map((value, at) => [`n${at}`, String(value)])], width: 2 },
          { header: true },
        );
        const evaluation = new Evaluation(sheet, {});
        evaluation.setRules([
          {
            id: 'r',
            name: 'R',
            on: true,
            settles: false,
            reads: { fields: [sheet.field(1).id] },
            when: { kind: 'rank', is, n },
            paints: 'cell',
          },
        ]);
        const numbers = column.flatMap((value, at) => (value === '' ? [] : { value, label: `n${at}` }));
        const ranked = sort(numbers, (a, b) =>
          is === 'top' ? descending(a.value, b.value) : ascending(a.value, b.value),
        );
        // Ties at the edge are taken with it.
        const edge = ranked[Math.min(n, ranked.length) - 1]?.value;
        const taken = ranked.filter(
          ({ value }) => edge !== undefined && (is === 'top' ? value >= edge : value <= edge),
        ).length;
        const expected = ranked.map(({ value, label }, at) => ({
          place: at + 1,
          label,
          shown: String(value),
          isIn: at < taken,
        }));
        const found = rankedTail(evaluation, 'r', { order: is === 'top' ? 'falling' : 'rising', within: 4, beyond: 3 });
        expect(found.map(({ column: _, position: __, ...rest }) => rest)).toEqual(
          expected.slice(Math.max(0, taken - 4), taken + 3),
        );
      },
    ),
  );
});
