import { expect, test } from 'vitest';
import { guessForm } from './guess-form';

test.each([
  [',', 'a,b,c\n1,2,3\n'],
  [';', 'a;b\n1,5;2,5\n3,5;4,5\n'],
  ['\t', 'Name\tNote\nA\tone, two; three\nB\tfour\n'],
  ['|', 'a|b|c\n1|2|3\n'],
  // Separators in quotes divide nothing.
  [',', '"a;b;c","d;e;f"\n"1;2;3","4;5;6"\n'],
  // More often alike wins over more cells.
  [';', 'a;b\n1,2,3;4\n5;6\n7;8,9\n'],
])('%j in %j', (separator, text) => {
  expect(guessForm(text, true).separator).toBe(separator);
});

test('a row that is cut off decides nothing; one field needs no separator', () => {
  expect(guessForm('a;b;c\n1;2;3\n4;', false)).toMatchObject({
    separator: ';',
    why: 'all of the first 2 rows have 3 cells',
  });
  expect(guessForm('Station\nAlder Weir\n', true)).toMatchObject({
    separator: ',',
    why: expect.stringContaining('one field') as string,
  });
});
