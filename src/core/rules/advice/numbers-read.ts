import type { Sheet } from '../../sheet/sheet';
import type { ReadColumn } from '../compile/reach';

/** The numbers in cells, in rising order. */
export function numbersRead(sheet: Sheet, read: readonly ReadColumn[]): Float64Array {
  const found: number[] = [];
  for (const { column, slots } of read) {
    const { numbers } = sheet.column(column);
    slots.forEach((slot) => {
      if (numbers[slot] === numbers[slot]) found.push(numbers[slot]!);
    });
  }
  return Float64Array.from(found).sort();
}
