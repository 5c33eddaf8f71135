import Joi from 'joi';
import { quantile } from 'd3-array';
import { describe, expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Evaluation } from '../evaluate/evaluation';
import { profileRule, readValues } from '../explain/profile-rule';
import { sensibleProfile } from '../explain/sensible-profile';
import { begun, STARTERS } from './starters';
import { suggestEach, suggestRules } from './suggest-rules';
import { kindOf } from '../kinds/registry';

const field = { id: 'f1', label: 'One', format: null, unit: null };
function profileOf(inputs: readonly string[]) {
  const sheet = makeSheet(inputs);
  return profileRule(new Evaluation(sheet, {}), { rule: '', thresholds: [] }, readValues(sheet, { fields: ['f1'] }));
}
const kindsFor = (...inputs: readonly string[]) =>
  suggestRules(field.id, profileOf(inputs)).map(({ when }) => when.kind);

describe('what a field suggests', () => {
  test('numbers: what stands out, and bands; dates: what is due; few texts: a look each; what is missing', () => {
    expect(kindsFor('1', '2', '3', '4', '50')).toEqual(['average', 'bands']);
    expect(kindsFor('2026-03-08', '2026-03-09', '2026-04-01')).toEqual(['date', 'date']);
    expect(kindsFor('weir', 'mill', 'weir', 'mill')).toEqual(['category']);
    expect(kindsFor('1', '2', '3', '4', '')).toContain('state');
    expect(kindsFor('', '', '')).toEqual([]);
  });

  test('several fields: the likeliest of each before a second one of any', () => {
    const profiles = [
      { field: 'f1', profile: profileOf(['weir', 'mill', 'weir', 'mill']) },
      { field: 'f2', profile: profileOf(['1', '2', '3', '4', '50']) },
    ];
    expect(suggestEach(profiles).map(({ reads, when }) => [reads, when.kind])).toEqual([
      [{ fields: ['f1'] }, 'category'],
      [{ fields: ['f2'] }, 'average'],
      [{ fields: ['f2'] }, 'bands'],
    ]);
    expect(suggestEach([])).toEqual([]);
  });

  test('a common job reads all fields that it is begun from, and compares with one that is none of them', () => {
    const fields = ['f1', 'f2', 'f3'].map((id, at) => ({ ...field, id, label: `Group ${at}` }));
    const answers = STARTERS.find(({ id }) => id === 'answers')!;
    const context = { field: fields[0]!, read: ['f1', 'f2'], fields, profile: profileOf(['a']) };
    expect(begun(answers, context)).toMatchObject({
      reads: { fields: ['f1', 'f2'] },
      when: { expect: { field: 'f3' } },
    });
  });

  test('everything suggested or begun from a common job is a condition that its kind takes', () => {
    for (const inputs of [['1', '2', '9'], ['a', 'b', 'b'], ['2026-03-08'], ['']]) {
      const profile = profileOf(inputs);
      const fields = [field, { ...field, id: 'f2', label: 'Answer key' }];
      const ideas = [
        ...suggestRules(field.id, profile),
        ...STARTERS.map((starter) => starter.make({ field, fields, profile })),
      ];
      for (const { when } of ideas) expect(kindOf(when).schema(Joi).validate(when).error).toBeUndefined();
    }
  });
});

test('the profile agrees with d3-array at each percent, and thresholds begin at round numbers near the quartiles', () => {
  const numbers = [3.1, 4.75, 8.875, 9.2, 10.4, 12.9, 17.35];
  const { profile } = profileOf(numbers.map(String));
  expect(profile.percentiles).toEqual(Array.from({ length: 101 }, (_, percent) => quantile(numbers, percent / 100)));
  const { lowerQuartile, median } = sensibleProfile(profile);
  expect(Math.abs(lowerQuartile - profile.lowerQuartile)).toBeLessThanOrEqual(0.1);
  expect(String(lowerQuartile).length).toBeLessThanOrEqual(3);
  expect(String(median).length).toBeLessThanOrEqual(4);
});
