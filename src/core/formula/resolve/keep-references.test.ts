import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Calculation } from '../calculate/calculation';
import { inRow, keepReferences, showReferences } from './keep-references';
import { WorkMeter } from '../values/work-meter';

test('a formula that is kept is read as it was typed', () => {
  const sheet = makeSheet();
  const slot = sheet.slotAt(3);
  for (const typed of [
    '=A4*2 + $B$2',
    '=SUM(A2:$B5;C:C;3:4)',
    '=A$4',
    '=B900:B2',
    '=B2:B900',
    '="A2"&A2',
    'A2',
    '=A2+',
    "=$'Kit'.A2",
  ])
    expect(showReferences(keepReferences(typed, sheet, inRow(sheet, slot)), sheet, slot)).toBe(typed);
  expect(keepReferences('=A4*2', sheet, inRow(sheet, slot))).toBe('=⟦f1⟧*2');
  expect(keepReferences('=A5*2', sheet, inRow(sheet, sheet.slotAt(4)))).toBe('=⟦f1⟧*2');
});

test('a label is kept by its field, stands for the record or for all records, and follows a new name', () => {
  const sheet = makeSheet();
  const slot = sheet.findSlot('r2')!;
  sheet.parts.put([{ id: 'three', kind: 'name', name: 'Three', refersTo: '=$A$2' }]);
  const kept = keepReferences('=Two*2+AVERAGE(Two)+three+Nowhere', sheet, inRow(sheet, slot));
  expect(kept).toBe('=⟦f2~@⟧*2+AVERAGE(⟦f2~*⟧)+three+Nowhere');
  sheet.apply({ kind: 'set-cells', cells: [{ row: 'header', field: 'f2', input: 'Dissolved oxygen' }] });
  expect(showReferences(kept, sheet, slot)).toBe("='Dissolved oxygen'*2+AVERAGE('Dissolved oxygen')+three+Nowhere");
});

test('a long formula is as long as it was typed, however long its references are kept', () => {
  const sheet = makeSheet();
  const typed = `=${Array.from({ length: 900 }, () => '$A$3').join('+')}`;
  const kept = keepReferences(typed, sheet, inRow(sheet, sheet.slotAt(1)));
  expect(kept.length).toBeGreaterThan(8192);
  expect(showReferences(kept, sheet, sheet.slotAt(1))).toBe(typed);
});

test('references follow rows that are inserted, and are gone with their row', () => {
  const sheet = makeSheet();
  const calculation = new Calculation(sheet, {
    sheet,
    now: NaN,
    findSheet: () => undefined,
    findName: () => undefined,
    work: new WorkMeter(),
  });
  const slot = sheet.slotAt(4);
  const input = keepReferences('=A3+A$5+SUM(A2:A3)', sheet, inRow(sheet, slot));
  const enter = { kind: 'set-cells' as const, cells: [{ row: sheet.rowId(slot), field: 'f3', input }] };
  const step = (operation: Parameters<typeof sheet.apply>[0]) => {
    const { effects, inverse } = sheet.apply(operation);
    calculation.follow(effects);
    return {
      inverse,
      typed: showReferences(sheet.column(2).inputAt(slot), sheet, slot),
      shown: sheet.column(2).entryAt(slot).shown,
    };
  };
  expect(
    step({ ...enter, cells: [{ ...enter.cells[0]!, input: keepReferences('=A3+A2', sheet, inRow(sheet, slot)) }] })
      .shown,
  ).toBe('9.9');
  expect(step(enter).typed).toBe('=A3+A$5+SUM(A2:A3)');
  const key = sheet.rowKey(sheet.slotAt(0));
  const inserted = step({
    kind: 'insert-rows',
    rows: [{ id: 'new', key: `${key}V`, role: 'record', cells: { f1: '1' } }],
  });
  expect(inserted.typed).toBe('=A4+A$6+SUM(A3:A4)');
  const removed = step({ kind: 'remove-rows', rows: ['r1'] });
  expect([removed.typed, removed.shown]).toEqual(['=#REF!+A$5+SUM(#REF!)', '#REF!']);
  expect(step(removed.inverse[0]!).typed).toBe('=A4+A$6+SUM(A3:A4)');
});

test('whatever happens to the rows, a kept formula is written in a way that means the same', () => {
  fc.assert(
    fc.property(
      fc.array(anyOperation, { maxLength: 10 }),
      fc.constantFrom('=A3*2+B$5', '=SUM(A2:B7)', '=$C4&A1'),
      (operations, typed) => {
        const sheet = makeSheet();
        const slot = sheet.slotAt(5);
        const kept = keepReferences(typed, sheet, inRow(sheet, slot));
        for (const operation of operations) sheet.apply(operation);
        if (sheet.positionOf(slot) < 0) return;
        const shown = showReferences(kept, sheet, slot);
        if (!shown.includes('#REF!')) expect(keepReferences(shown, sheet, inRow(sheet, slot))).toBe(kept);
      },
    ),
    { numRuns: 500 },
  );
});
