import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, contentsOf, makeSheet } from '../../../test/support/arbitrary-sheet';

test('an operation followed by its inverse leaves the sheet as it was', () => {
  fc.assert(
    fc.property(fc.array(anyOperation, { maxLength: 12 }), anyOperation, (history, operation) => {
      const sheet = makeSheet();
      for (const earlier of history) sheet.apply(earlier);
      const before = contentsOf(sheet);
      const { inverse } = sheet.apply(operation);
      for (const undo of inverse) sheet.apply(undo);
      expect(contentsOf(sheet)).toEqual(before);
    }),
    { numRuns: 400 },
  );
});

test('rows stay in the order of their keys, and positions follow', () => {
  fc.assert(
    fc.property(fc.array(anyOperation, { maxLength: 20 }), (operations) => {
      const sheet = makeSheet();
      for (const operation of operations) sheet.apply(operation);
      const keys = sheet.order.map((slot) => sheet.rowKey(slot));
      expect(keys).toEqual(keys.toSorted((a, b) => (a < b ? -1 : a > b ? 1 : 0)));
      sheet.order.forEach((slot, position) => expect(sheet.positionOf(slot)).toBe(position));
    }),
  );
});

test('labels are the texts of the header row', () => {
  const sheet = makeSheet();
  expect(sheet.fields.map((_, column) => sheet.labelOf(column))).toEqual(['One', 'Two', 'Three']);
  sheet.apply({ kind: 'set-cells', cells: [{ row: 'header', field: 'f2', input: ' 007 ' }] });
  expect(sheet.labelOf(1)).toBe('007');
  expect(sheet.column(1).valueAt(sheet.findSlot('header')!).kind).toBe('text');
});
