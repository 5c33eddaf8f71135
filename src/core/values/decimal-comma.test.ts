import { expect, test } from 'vitest';
import { typedReader, withDecimalPoint } from './decimal-comma';

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

// The same standard: a comma before three digits may divide groups, one before another number of digits cannot.
test.each([
  ['3,5', '3.5', '3,5'],
  ['3,500', '3,500', '3,500'],
  ['1.234,5', '1234.5', '1.234,5'],
  ['weir, mill', 'weir, mill', 'weir, mill'],
])('%s typed where decimals have a point, by who fills in and by who works on the sheet', (typed, filled, worked) => {
  expect(typedReader('.', true)(typed)).toBe(filled);
  expect(typedReader('.', false)(typed)).toBe(worked);
});
