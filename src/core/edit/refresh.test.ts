import fc from 'fast-check';
import { generateNKeysBetween } from 'fractional-indexing';
import { expect, test } from 'vitest';
import type { StoredRow } from '../sheet/change';
import { newField } from '../sheet/field';
import { Sheet } from '../sheet/sheet';
import { refreshFrom } from './refresh';

const LABELS = ['Station', 'Day', 'Oxygen'];
const cell = fc.constantFrom('', '4.9', '4.90', 'sensor error', "'7", '12 %', '2026-03-08');
const records = fc.uniqueArray(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd', 'e'), cell, cell), {
  selector: ([station]) => station,
  maxLength: 5,
});
function sheetOf(rows: readonly (readonly string[])[], labels: readonly string[] = LABELS): Sheet {
  const keys = generateNKeysBetween(null, null, rows.length + 1);
  const made = new Sheet(labels.map((_, at) => newField(`f${at}`, `a${at}`)));
  const stored = [labels, ...rows].map((cells, at): StoredRow => ({
    id: `r${at}`,
    key: keys[at]!,
    role: at ? 'record' : 'header',
    cells: Object.fromEntries(cells.map((input, column) => [`f${column}`, input])),
  }));
  made.apply({ kind: 'insert-rows', rows: stored });
  return made;
}
const rowsOf = (sheet: Sheet) => sheet.order.slice(1).map((slot) => sheet.columns.map((store) => store.valueAt(slot)));

test('refreshed, a sheet holds what the file says, in whatever order; refreshing again does nothing, and the inverse brings all back', () => {
  fc.assert(
    fc.property(records, records, (before, newer) => {
      const sheet = sheetOf(before);
      const was = rowsOf(sheet);
      let made = 0;
      const how = { key: [sheet.field(0).id], removes: true, newId: () => `new-${++made}` };
      const { operations, added, removed } = refreshFrom(sheet, { labels: LABELS, records: newer }, how);
      const inverse = operations.map((operation) => sheet.apply(operation).inverse);
      const wanted = rowsOf(sheetOf(newer));
      const byStation = (rows: typeof wanted) => rows.map((row) => JSON.stringify(row)).sort();
      expect(byStation(rowsOf(sheet))).toEqual(byStation(wanted));
      expect(before.length + added - removed).toBe(newer.length);
      expect(refreshFrom(sheet, { labels: LABELS, records: newer }, how).operations).toEqual([]);
      for (const step of inverse.reverse()) for (const operation of step) sheet.apply(operation);
      expect(rowsOf(sheet)).toEqual(was);
    }),
  );
});

test('fields are matched by label, formulas stay on both sides, and records without a key are skipped', () => {
  const sheet = sheetOf(
    [
      ['Alder Weir', '4.9', '=B2*2'],
      ['Birch Ford', '8', 'x'],
    ],
    ['Station', 'Oxygen', 'Twice'],
  );
  const newer = {
    labels: ['oxygen', 'STATION', 'Twice', 'Other'],
    records: [
      ['5', 'alder  weir', '10', 'q'],
      ['7', '', '', ''],
      ['9', 'Alder Weir', '', ''],
      ['=1+1', 'Birch Ford', '=2', ''],
    ],
  };
  const { changed, operations, missing, passedOver } = refreshFrom(sheet, newer, {
    key: [sheet.field(0).id],
    removes: false,
    newId: () => 'new',
  });
  expect(changed).toEqual([{ record: 'Alder Weir', label: 'oxygen', before: '4.9', after: '5' }]);
  expect({ kinds: operations.map(({ kind }) => kind), missing, passedOver }).toEqual({
    kinds: ['set-cells'],
    missing: 0,
    passedOver: 2,
  });
});
