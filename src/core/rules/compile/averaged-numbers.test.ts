import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { BitSet } from '../../values/bit-set';
import { Moments } from '../../stats/moments';
import { ColumnNumbers } from './averaged-numbers';

test('exact sums that somebody has asked for go along with edits', () => {
  const inputs = [0.1, 0.2, 0.7, 1e15, 3];
  const sheet = sheetFromTable({ rows: [['a'], ...inputs.map((each) => [String(each)])], width: 1 }, { header: true });
  const slots = new BitSet();
  slots.fit(sheet.slotCount);
  inputs.forEach((_, at) => slots.set(at + 1, true));
  const numbers = new ColumnNumbers(sheet, { away: 1, spread: 'sample' });
  numbers.include({ column: 0, slots });
  expect(numbers.moments.count).toBe(5);
  for (const [slot, input] of [
    [4, '0.3'],
    [2, ''],
    [1, 'x'],
    [2, '-8.25'],
  ] as const) {
    const before = sheet.column(0).numberAt(slot);
    sheet.column(0).set(slot, input);
    numbers.edit(before, { column: 0, slot, number: sheet.column(0).numberAt(slot) });
  }
  // Against sums of what the cells hold in the end.
  const fresh = new Moments();
  for (const number of [-8.25, 0.7, 0.3, 3]) fresh.add(number);
  expect([numbers.moments.count, numbers.moments.mean, numbers.moments.deviation('sample')]).toEqual([
    fresh.count,
    fresh.mean,
    fresh.deviation('sample'),
  ]);
});

test('an edit before anything is asked counts once', () => {
  const sheet = sheetFromTable({ rows: [['a'], ['1'], ['2'], ['6']], width: 1 }, { header: true });
  const slots = new BitSet();
  slots.fit(sheet.slotCount);
  [1, 2, 3].forEach((slot) => slots.set(slot, true));
  const numbers = new ColumnNumbers(sheet, { away: 0, spread: 'sample' });
  numbers.include({ column: 0, slots });
  sheet.column(0).set(1, '4');
  numbers.edit(1, { column: 0, slot: 1, number: 4 });
  // The mean of 4, 2 and 6, by hand.
  expect(numbers.bounds?.low).toBeCloseTo(4, 12);
  expect(numbers.bounds?.high).toBeCloseTo(4, 12);
});
