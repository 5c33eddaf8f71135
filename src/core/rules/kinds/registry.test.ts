import Joi from 'joi';
import { describe, expect, test } from 'vitest';
import { Evaluation } from '../evaluate/evaluation';
import { ruleSentence } from '../shape/sentence-words';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { kindOf, KIND_NAMES, KINDS, type When } from './registry';

const profile = { numbers: 9, least: 1, lowerQuartile: 3, median: 5, upperQuartile: 7, greatest: 9, commonText: null };

/** The contract of every kind. */
describe.each(KIND_NAMES)('%s', (name) => {
  const kind = kindOf({ kind: name } as When);

  test('has examples', () => expect(kind.examples.length).toBeGreaterThan(1));

  // Among many contents a field keeps its numbers alone.
  test.each(kind.examples.flatMap((example) => [0, 1200].map((others) => ({ ...example, others }))))(
    '$says, beside $others other contents',
    ({ when, inputs, outcomes, others }) => {
      const sheet = sheetFromTable({ rows: [['Value'], ...inputs.map(() => [''])], width: 1 }, { header: true });
      for (let other = 0; other < others; other++) sheet.column(0).contents.codeFor(`other ${other}`, false);
      inputs.forEach((input, at) => sheet.column(0).set(at + 1, input));
      const evaluation = new Evaluation(sheet, {});
      evaluation.setRules([
        {
          id: 'rule',
          name: 'Rule',
          on: true,
          settles: false,
          reads: { fields: [sheet.field(0).id] },
          when,
          paints: 'cell',
          look: { bold: true },
        },
      ]);
      const running = evaluation.activeRules[0]!;
      expect(running.problem).toBeNull();
      expect(inputs.map((_, at) => running.outcomeAt(0, at + 1))).toEqual(outcomes);
      expect(running.outcomeAt(0, 0)).toBe(-1);
    },
  );

  test('takes its own examples and defaults, with and without values to choose from', () => {
    for (const when of [
      ...kind.examples.map((example) => example.when),
      kind.defaults(profile),
      kind.defaults({ ...profile, numbers: 0 }),
      kind.defaults({ ...profile, numbers: 0, commonText: 'done' }),
    ]) {
      expect(KINDS[name].schema(Joi).validate(when, { convert: false }).error).toBeUndefined();
    }
  });

  test('refuses a key that it does not know, and names it', () => {
    const { error } = KINDS[name]
      .schema(Joi)
      .validate({ ...kind.defaults(profile), colour: 'red' }, { convert: false });
    expect(error?.message).toContain('colour');
  });

  test('reads as a sentence without gaps', () => {
    const sentence = ruleSentence([{ id: 'f', label: 'Oxygen', format: '0.0', unit: 'mg/L' }], {
      reads: { fields: ['f'] },
      when: kind.defaults(profile),
    });
    expect(sentence).toMatch(/^Oxygen (is|has|contains|makes) .{5,}$/);
    expect(sentence).not.toMatch(/undefined|NaN|\[object|null/);
  });

  test('a threshold can be put in the place of another', () => {
    for (const { when } of kind.examples)
      kind
        .thresholds(when)
        .forEach((threshold, at) => expect(kind.thresholds(threshold.with(123))[at]!.value).toBe(123));
  });
});
