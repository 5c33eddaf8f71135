import { expect, test } from 'vitest';
import { fateGroups } from './export-source';

test('rules with the same result and note form one group; groups follow their first rule', () => {
  const fates = [
    { name: 'Low', as: 'formula', note: '' },
    { name: 'High', as: 'rule', note: 'blanks count' },
    { name: 'Late', as: 'formula', note: '' },
    { name: 'Odd', as: 'formula', note: 'blanks count' },
  ] as const;
  expect(fateGroups(fates).map(({ names, as, note }) => [names.join('+'), as, note])).toEqual([
    ['Low+Late', 'formula', ''],
    ['High', 'rule', 'blanks count'],
    ['Odd', 'formula', 'blanks count'],
  ]);
});
