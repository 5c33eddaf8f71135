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

/** The least and the greatest number in cells: Infinity and -Infinity where there is none. */
export function endsRead(sheet: Sheet, read: readonly ReadColumn[]): { least: number; greatest: number } {
  let least = Infinity;
  let greatest = -Infinity;
  for (const { column, slots } of read) {
    const { numbers } = sheet.column(column);
    slots.forEach((slot) => {
      const number = numbers[slot] ?? NaN;
      if (number < least) least = number;
      if (number > greatest) greatest = number;
    });
  }
  return { least, greatest };
}
