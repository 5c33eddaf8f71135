import { expect, test } from 'vitest';
import { inGroup } from './commands';
import { matching } from './matching';

const run = () => {};
const COMMANDS = inGroup('Actions', [
  { title: 'Remove duplicate records', run },
  { title: 'Add record at the end', also: 'row', run },
  { title: 'Récord keeping', run },
]);
const titles = (query: string) => matching(COMMANDS, query).map(({ title }) => title);

test('every typed word counts, in whatever order, case and accents; a title that begins so comes first', () => {
  expect(titles('')).toHaveLength(3);
  expect(titles('RECORDS duplicate')).toEqual(['Remove duplicate records']);
  expect(titles('record')).toEqual(['Récord keeping', 'Remove duplicate records', 'Add record at the end']);
  expect(titles('row')).toEqual(['Add record at the end']);
  expect(titles('nothing')).toEqual([]);
});
