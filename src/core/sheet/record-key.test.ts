import { expect, test } from 'vitest';
import { isSameInput } from './is-same-input';
import { recordKey } from './record-key';

test.each([
  ['5', '5.0', true],
  ['0.5', '50%', true],
  ['2026-03-08', '8 March 2026', true],
  ['Alder', 'alder', false],
  ["'7", '7', false],
  ['', '  ', true],
  ['=A1', '=A1', true],
  // The result is not known here.
  ['=A1', '=B1', false],
  ['=A1', '', false],
])('%j and %j hold the same: %s', (one, other, isSame) => {
  expect(isSameInput(one, other)).toBe(isSame);
  expect(isSameInput(other, one)).toBe(isSame);
});

test('keys meet however their parts were typed, but not parts of other types or places', () => {
  expect(recordKey([' ALDER  weir', '5.0'])).toBe(recordKey(['Alder Weir', '5']));
  expect(recordKey(["'5"])).not.toBe(recordKey(['5']));
  expect(recordKey(['a', ''])).not.toBe(recordKey(['', 'a']));
  expect(recordKey(['a', 'b c'])).not.toBe(recordKey(['a b', 'c']));
  expect(recordKey(['', null, undefined])).toBeNull();
});
