import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { RunningRule } from '../evaluate/running-rule';
import { Evidence } from './evidence';
import { candidatesOf } from './registry';

// What is proposed from plain sums is evaluated by the kinds themselves, which add otherwise.
test('averages and ranks that are proposed, of all and by group, hold for what is wanted and for nothing else', () => {
  let grouped = 0;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('North', 'South'), fc.integer({ min: 0, max: 40 })), {
        minLength: 8,
        maxLength: 30,
      }),
      fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
      (records, isWanted) => {
        const rows = [['Crew', 'Level'], ...records.map(([crew, level]) => [crew, String(level)])];
        const sheet = sheetFromTable({ rows, width: 2 }, { header: true });
        const { world } = new Evaluation(sheet, {});
        const cells = (wanted: boolean) =>
          isWanted.flatMap((is, at) => (is === wanted ? [{ column: 1, slot: at + 1 }] : []));
        const evidence = new Evidence({
          sheet,
          read: [{ column: 1, slots: sheet.slotsWithRoles(['record']) }],
          wanted: [{ look: {}, cells: cells(true) }],
          unwanted: cells(false),
          now: NaN,
          isPointed: true,
        });
        const reads = { fields: [sheet.field(1).id] };
        for (const when of candidatesOf(['average', 'rank'], evidence)) {
          if ('per' in when) grouped++;
          const rule = { id: 'a', name: 'A', on: true, settles: false, paints: 'cell', look: {}, reads, when } as const;
          const running = new RunningRule(rule, world);
          expect(isWanted.map((_, at) => running.outcomeAt(1, at + 1) >= 0)).toEqual(isWanted);
        }
      },
    ),
    { numRuns: 300 },
  );
  expect(grouped).toBeGreaterThan(0);
});
