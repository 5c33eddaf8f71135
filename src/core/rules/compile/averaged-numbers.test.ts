import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { BitSet } from '../../values/bit-set';
import { ColumnNumbers } from './averaged-numbers';

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
