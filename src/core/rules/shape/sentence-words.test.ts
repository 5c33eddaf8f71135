import { describe, expect, test } from 'vitest';
import { thresholdText } from '../../values/threshold-text';
import { ruleSentence } from './sentence-words';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import type { When } from '../kinds/registry';
import { namedFields } from './named-fields';

const FIELDS = [
  { id: 'o', label: 'Oxygen', format: '0.0', unit: 'mg/L' },
  { id: 's', label: 'Saturation', format: '0%', unit: null },
  { id: 'p', label: 'Planned', format: null, unit: null },
];
const says = (when: When, fields = ['o']) => ruleSentence(FIELDS, { reads: { fields }, when });

describe('rules in plain words', () => {
  const sentences: readonly (readonly [When, string])[] = [
    [{ kind: 'compare', is: '<', to: 5 }, 'Oxygen is below 5.0 mg/L'],
    [{ kind: 'compare', is: 'between', to: [5, 7.25] }, 'Oxygen is between 5.0 mg/L and 7.25 mg/L'],
    [{ kind: 'compare', is: '>=', to: { field: 'p', times: 0.9, plus: -2 } }, 'Oxygen is at least 0.9 × Planned − 2'],
    [
      { kind: 'compare', is: '>', to: { cell: '$F$4' }, magnitude: true, asShown: true },
      'Oxygen is above $F$4, in magnitude, as shown',
    ],
    [{ kind: 'compare', is: '=', to: 'practice' }, 'Oxygen is “practice”'],
    [{ kind: 'average', is: 'above' }, 'Oxygen is above the average'],
    [
      { kind: 'average', is: 'at-or-below', deviations: 1, per: { group: 'p' } },
      'Oxygen is at or below the average of its Planned by more than 1 sample deviation',
    ],
    [
      { kind: 'average', is: 'below', deviations: 2, spread: 'population', per: 'field' },
      'Oxygen is below the average of its field by more than 2 population deviations',
    ],
    [
      { kind: 'bands', cuts: [5, 7], looks: [null, null, null] },
      'Oxygen is in one of 3 bands, cut at 5.0 mg/L, 7.0 mg/L',
    ],
  ];
  test.each(sentences)('%j', (when, sentence) => expect(says(when)).toBe(sentence));

  test('several fields, a range, and a field that is gone', () => {
    expect(says({ kind: 'compare', is: '>', to: 0.95 }, ['s', 'p'])).toBe('Saturation or Planned is above 95%');
    expect(ruleSentence(FIELDS, { reads: { cells: 'B2:C9' }, when: { kind: 'average', is: 'above' } })).toBe(
      'B2:C9 is above the average',
    );
    expect(says({ kind: 'average', is: 'above' }, ['gone'])).toBe('a deleted field is above the average');
  });
});

test.each([
  [5, '0.0', '5.0'],
  [5.25, '0.0', '5.25'],
  [0.7, '0%', '70%'],
  [0.04995, '0%', '4.995%'],
  [1234.5, '#,##0', '1,234.5'],
  [1000, '#,##0', '1,000'],
  [0.1, null, '0.1'],
])('the threshold %d under the format %s is written %s: with all its decimals', (threshold, format, text) =>
  expect(thresholdText(threshold, format)).toBe(text),
);

test('a percentage that is typed as one is named as one', () => {
  const rows = [['Share'], ['4%'], ['12%'], ['0.07']];
  const fields = namedFields(sheetFromTable({ rows, width: 1 }, { header: true }));
  const reads = { fields: fields.map(({ id }) => id) };
  expect(ruleSentence(fields, { reads, when: { kind: 'compare', is: '<', to: 0.05 } })).toBe('Share is below 5%');
  const bands = { kind: 'bands', cuts: [0.05, 0.1], looks: [null, null, null] } as const;
  expect(ruleSentence(fields, { reads, when: bands })).toBe('Share is in one of 3 bands, cut at 5%, 10%');
});
