import { expect, test } from 'vitest';
import { withDecimalPoint } from './decimal-comma';

// ISO 80000-1, 7.3: the decimal sign is a comma or a point, groups are divided by spaces; points are common practice.
test.each([
  ['3,2', '3.2'],
  ['-0,5 %', '-0.5%'],
  ['1 234,5', '1234.5'],
  ['1.234,50', '1234.50'],
  ['1,234', '1.234'],
  // What could stand in the sheet already, with a point, is left alone; so is what is no number.
  ['1.234', '1.234'],
  ['12', '12'],
  ['1,2,3', '1,2,3'],
  ['weir, mill', 'weir, mill'],
  ['=SUM(1,2)', '=SUM(1,2)'],
])('%s', (typed, read) => {
  expect(withDecimalPoint(typed)).toBe(read);
});
