import { expect, test } from 'vitest';
import { readThreshold } from './read-threshold';

// ISO 80000-1, 7.3: the decimal sign is a comma or a point. Which of two readings is taken is a ruling of this project.
test.each([
  ['3,5', 'number', undefined, 3.5],
  ['3,500', 'number', undefined, 3500],
  ['3,500', 'number', ',', 3.5],
  ['3,5', 'any', undefined, '3,5'],
  ['3,5', 'any', ',', 3.5],
  ['3,5', 'any', 'either', 3.5],
  ['weir', 'any', ',', 'weir'],
  ['weir', 'number', undefined, undefined],
] as const)('%s as %s with %s', (...[text, takes, decimal, value]) => {
  expect(readThreshold(text, { format: null, takes, ...(decimal && { decimal }) })).toBe(value);
});
