import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Evaluation } from '../../rules/evaluate/evaluation';
import type { Rule } from '../../rules/shape/rule';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { dateFields, paintedByDate } from './painted-by-date';
import { spansOfTime } from './spans-of-time';

test('every moment of a time lies in the span that it is said to be in, and there are at most sixty', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 30_000, max: 50_000, noNaN: true }),
      fc.double({ min: 0.01, max: 20_000, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (from, length, share) => {
        const { edges, width, at } = spansOfTime(from, from + length);
        const moment = from + share * length;
        const edge = edges[at(moment)] ?? NaN;
        expect(edges.length).toBeLessThanOrEqual(61);
        expect(edge - 1e-6).toBeLessThanOrEqual(moment);
        expect(moment).toBeLessThanOrEqual(edge + width + 1e-6);
      },
    ),
  );
});

test('records are counted by their day, those that are painted apart; those without a day are left out', () => {
  const rows = [
    ['Level', 'Day', 'Note'],
    ['4', '2026-03-01', 'a'],
    ['6', '2026-03-01', ''],
    ['3', '2026-03-03', ''],
    ['2', '', ''],
    ['9', '2026-03-04', 'b'],
  ];
  const sheet = sheetFromTable({ rows, width: 3 }, { header: true });
  const [level, day] = [sheet.field(0).id, sheet.field(1).id];
  expect(dateFields(sheet)).toEqual([day]);
  const rule: Rule = {
    id: 'low',
    name: 'Low',
    on: true,
    settles: false,
    reads: { fields: [level] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'cell',
    look: { bold: true },
  };
  const bins = paintedByDate(new Evaluation(sheet, {}), rule, day);
  const filled = bins.filter(({ records }) => records > 0);
  expect(filled.map(({ painted, records }) => [painted, records])).toEqual([
    [1, 2],
    [1, 1],
    [0, 1],
  ]);
  // 1 March 2026 is day 46,082 since 1899-12-30 (ISO/IEC 26300-4, null date).
  expect(filled.map(({ from }) => Math.floor(from))).toEqual([46_082, 46_084, 46_085]);
  expect(paintedByDate(new Evaluation(sheet, {}), rule, 'gone')).toEqual([]);
});
