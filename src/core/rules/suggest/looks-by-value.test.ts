import Joi from 'joi';
import { expect, test } from 'vitest';
import { category } from '../kinds/category';
import { looksByValue } from './looks-by-value';

test('spellings of one value share its look, and the rule is one that is taken', () => {
  const looks = looksByValue(['done', 'Done', ' DONE', 'blocked', 'Weir', 'Mill']);
  expect(Object.keys(looks)).toEqual(['done', 'blocked', 'Weir', 'Mill']);
  expect([looks.done, looks.blocked]).toEqual([{ look: 'clear' }, { look: 'alarm' }]);
  expect(looks.Weir).not.toEqual(looks.Mill);
  expect(category.schema(Joi).validate({ kind: 'category', looks }).error).toBeUndefined();
});

test('values that have a look already are left out, in whatever spelling', () => {
  expect(Object.keys(looksByValue(['Done', 'weir', 'Weir'], ['done']))).toEqual(['weir']);
});
