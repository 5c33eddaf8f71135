// One edit in a sheet of 1,000,000 cells under 20 rules of all kinds, beside a full evaluation in the same run; and one
// under five rules on its field, beside the least that it could cost.
import { randomLcg } from 'd3-random';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { When } from '../../src/core/rules/kinds/registry';
import { figure, median, ms } from './figures.mjs';
import { HandEdited } from './hand-edits';
import { ruleOver, sheetOf } from './one-field';
import { time, timed } from './time';

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

/** Five rules on the edited field alone, beside the same by hand; both take turns, and what they match is compared. */
const five: readonly When[] = [
  { kind: 'compare', is: '<', to: 100 },
  { kind: 'average', is: 'above', deviations: 1.5 },
  { kind: 'rank', is: 'top', percent: 10 },
  { kind: 'repeat', is: 'repeated' },
  { kind: 'scale', stops },
];
const field = sheetOf(['f0'], RECORDS, () => [inputAt(0)]);
const underFive = new Evaluation(field, {});
underFive.setRules(five.map((when, at) => ruleOver('f0', when, `r${at}`)));
const hand = new HandEdited(field.column(0).numbers.slice(0, RECORDS), 100, 1.5);
const edits = Array.from({ length: 4000 }, (_, at) => ({
  row: (at * 7919) % RECORDS,
  number: Math.round(random() * 1e5) / 100,
}));
const rounds: { rule: number; limit: number }[] = [];
for (let from = 0; from < edits.length; from += EDITS) {
  const some = edits.slice(from, from + EDITS);
  rounds.push({
    rule: timed(() => {
      for (const { row, number } of some)
        underFive.follow(
          field.apply({ kind: 'set-cells', cells: [{ row: `r${row}`, field: 'f0', input: String(number) }] }).effects,
        );
    }),
    limit: timed(() => {
      for (const { row, number } of some) hand.edit(row, number);
    }),
  });
}
for (const [at, flags] of [hand.below, hand.above, hand.top, hand.repeated].entries()) {
  const found = underFive.activeRules[at]?.outcomes.get(0)?.has;
  if (flags.some((flag, slot) => (flag === 1) !== found?.has(slot)))
    throw new Error(`${five[at]?.kind}: edits by hand match other records`);
}
const perEdit = (key: 'rule' | 'limit') => median(rounds.map((round) => round[key])) / EDITS;
figure(
  'one edit under five rules on its field, 50,000 records',
  `${(perEdit('rule') * 1000).toFixed(0)} µs`,
  `by hand ${(perEdit('limit') * 1000).toFixed(0)} µs`,
  `${median(rounds.map(({ rule, limit }) => rule / limit)).toFixed(1)}x the limit (aim 1x)`,
);
