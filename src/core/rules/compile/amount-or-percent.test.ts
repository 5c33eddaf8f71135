import Joi from 'joi';
import { expect, test } from 'vitest';
import { amountOf, amountOrPercentSchema, readAmount } from './amount-or-percent';

test.each([
  ['5', 5],
  [' 0.25 ', 0.25],
  ['10%', '10%'],
  ['2.5 %', '2.5 %'],
  ['-3', undefined],
  ['-3%', undefined],
  ['many', undefined],
  ['', undefined],
])('“%s” is read as %s, and what is read is what a rule may hold', (text, amount) => {
  expect(readAmount(text)).toBe(amount);
  if (amount !== undefined) expect(amountOrPercentSchema(Joi).validate(amount).error).toBeUndefined();
});

test('a percentage is taken of the size of the base', () =>
  expect([amountOf('12.3%', 1), amountOf('10%', -50), amountOf(4, 100)]).toEqual([0.123, 5, 4]));
