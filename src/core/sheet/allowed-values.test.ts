import { expect, test } from 'vitest';
import { isAllowed } from './allowed-values';

test.each([
  ['Upper', true],
  [' upper ', true],
  ['', true],
  ['=B2', true],
  ['Uppermost', false],
  ['Straße', true],
  ['STRASSE', true],
])('%j of a list of Upper and Straße', (input, expected) => {
  expect(isAllowed({ allowed: ['Upper', 'Straße'] }, input)).toBe(expected);
});

test('a field without a list takes anything', () => expect(isAllowed({}, 'anything')).toBe(true));
