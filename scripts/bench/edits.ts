// One edit in a sheet of 1,000,000 cells under 20 rules of all kinds, beside a full evaluation in the same run.
import { randomLcg } from 'd3-random';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';
import { figure, ms } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { time } from './time';

const FIELDS = Array.from({ length: 20 }, (_, at) => `f${at}`);
const RECORDS = 50_000;
const random = randomLcg(17);
const inputAt = (column: number): string =>
  column === 18
    ? `2026-0${1 + Math.floor(random() * 9)}-1${Math.floor(random() * 10)}`
    : column === 19
      ? `crew ${Math.floor(random() * 40)}`
      : String(Math.round(random() * 100_000) / 100);
const built = sheetOf(FIELDS, RECORDS, () => FIELDS.map((_, column) => inputAt(column)));

const stops = [
  { at: 'least', color: '#ffffff' },
  { at: { percentile: 50 }, color: '#8fb8a8' },
  { at: 'greatest', color: '#1f5673' },
] as const;
/** On the field that is edited, and on the others. */
const conditions: readonly (readonly [string, When])[] = [
  ['f0', { kind: 'compare', is: '<', to: 100 }],
  ['f0', { kind: 'compare', is: '>', to: { field: 'f1', times: 1.5 } }],
  ['f0', { kind: 'state', is: 'blank' }],
  ['f0', { kind: 'average', is: 'above', deviations: 2 }],
  ['f0', { kind: 'rank', is: 'top', percent: 10 }],
  ['f0', { kind: 'repeat', is: 'repeated' }],
  ['f0', { kind: 'bands', cuts: [250, 500, 750], looks: [null, null, null, null] }],
  ['f0', { kind: 'scale', stops }],
  ['f0', { kind: 'bar' }],
  ['f0', { kind: 'icons', set: 'arrows3', cuts: [{ at: 300 }, { at: 600 }] }],
  ['f0', { kind: 'formula', formula: '=AND($A1>$B1*0.9;$C1<500)' }],
  ['f1', { kind: 'compare', is: 'between', to: [10, 20] }],
  ['f2', { kind: 'average', is: 'below', per: { group: 'f19' } }],
  ['f3', { kind: 'rank', is: 'bottom', n: 10 }],
  ['f4', { kind: 'formula', formula: '=E1>AVERAGE($E$1:$E$50000)' }],
  ['f5', { kind: 'scale', stops }],
  ['f18', { kind: 'date', is: { last: 30, unit: 'day' } }],
  ['f19', { kind: 'text', is: 'contains', any: ['crew 7'] }],
  ['f19', { kind: 'category', palette: 'set2' }],
  ['f19', { kind: 'key', expect: ['crew 1'], near: 1, looks: {} }],
];
const rules = () => conditions.slice(0, 20).map(([field, when], at) => ruleOver(field, when, `r${at}`));

const evaluation = new Evaluation(built, {}, { now: 46_200 });
const whole = time(() => evaluation.setRules(rules()));
let edit = 0;
const EDITS = 200;
const one =
  time(() => {
    for (let again = 0; again < EDITS; again++, edit++) {
      const input = String(Math.round(random() * 100_000) / 100);
      const { effects } = built.apply({
        kind: 'set-cells',
        cells: [{ row: `r${(edit * 7919) % RECORDS}`, field: 'f0', input }],
      });
      evaluation.follow(effects);
    }
  }) / EDITS;
figure(
  'one edit under 20 rules of all kinds, 1,000,000 cells',
  ms(one),
  `evaluating all anew ${ms(whole)}`,
  'under 1/1,000 of it',
);
