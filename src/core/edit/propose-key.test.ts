import { expect, test } from 'vitest';
import { proposeKey } from './propose-key';

const RECORDS = [
  ['Alder Weir', '2026-03-01', '1', '7.25', 'a'],
  ['Birch Ford', '2026-03-01', '1', '7.5', ''],
  ['Alder Weir', '2026-03-02', '1', '8.125', 'c'],
  ['Birch Ford', '2026-03-02', '1', '9', 'd'],
];

test.each([
  [
    'one column is enough',
    [
      ['x', 'a'],
      ['x', 'b'],
    ],
    [1],
  ],
  ['two are taken together where one is not; measured numbers and blanks are none', RECORDS, [0, 1]],
  ['the same value typed in another way is the same', [['Alder Weir'], [' ALDER WEIR']], []],
  ['two records alike are not told apart by anything', [RECORDS[0]!, RECORDS[0]!], []],
  [
    'an error is no key',
    [
      ['#N/A', 'p'],
      ['b', 'q'],
    ],
    [1],
  ],
  ['no records, no key', [], []],
])('%s', (_, records, key) => {
  expect(proposeKey(records, [0, 1, 2, 3, 4].slice(0, records[0]?.length ?? 1))).toEqual(key);
});

test('only columns that may be taken are', () => {
  expect(
    proposeKey(
      [
        ['a', 'x'],
        ['b', 'y'],
      ],
      [1],
    ),
  ).toEqual([1]);
});
