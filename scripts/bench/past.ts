// What a rule would have found over a long log: 100,000 changes, beside taking the same changes one after another.
import { randomLcg } from 'd3-random';
import { CellPast } from '../../src/core/rules/evaluate/cell-past';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { PastReplay } from '../../src/core/findings/past/replay-past';
import type { When } from '../../src/core/rules/kinds/registry';
import { summarizeSpells } from '../../src/core/findings/past/summarize-spells';
import { figure, ms } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { time, timed } from './time';

const RECORDS = 2000;
const CHANGES = 100_000;
const BEGAN_MS = Date.UTC(2026, 0, 1);
const STEP_MS = 60_000;
const FIELDS = ['a', 'b', 'c', 'd'];

const random = randomLcg(0.3);
const number = () => String(Math.round(random() * 1000) / 10);
const sheet = sheetOf(FIELDS, RECORDS, () => FIELDS.map(number));
const past = new CellPast(sheet);
past.knowsFrom(BEGAN_MS, true);
const watchRule = ruleOver('a', { kind: 'compare', is: '<', to: 10 });
const evaluation = new Evaluation(sheet, {}, { now: 46_023 });
evaluation.setRules([watchRule]);
const changes = Array.from({ length: CHANGES }, () => ({
  row: `r${Math.floor(random() * RECORDS)}`,
  field: FIELDS[Math.floor(random() * FIELDS.length)] ?? 'a',
  input: number(),
}));
let taken = 0;
changes.forEach((cell, at) => {
  let inverse: ReturnType<typeof sheet.apply>['inverse'] = [];
  taken += timed(() => {
    const applied = sheet.apply({ kind: 'set-cells', cells: [cell] });
    evaluation.follow(applied.effects);
    inverse = applied.inverse;
  });
  past.add({ sequence: at + 1, at: BEGAN_MS + at * STEP_MS, inverse });
});
const now = 46_023 + CHANGES / 1440;

const kinds: readonly (readonly [string, When])[] = [
  ['a threshold', { kind: 'compare', is: '<', to: 10 }],
  ['two fields', { kind: 'compare', is: '<', to: { field: 'b', times: 0.2 } }],
  ['bands', { kind: 'bands', cuts: [10, 90], looks: [{ fill: '#aa0000' }, null, { fill: '#00aa00' }] }],
  ['an average (in 2,500 steps)', { kind: 'average', is: 'above', deviations: 1.5 }],
];
for (const [says, when] of kinds) {
  const rule = { ...ruleOver('a', when), look: { bold: true } };
  const replay = new PastReplay(evaluation.world, past);
  const run = () => {
    const spells = replay.spellsOf(rule, now);
    return Array.isArray(spells) ? summarizeSpells(spells, { from: past.knownFrom, to: now }).entered : 0;
  };
  const first = timed(run);
  const again = when.kind === 'average' ? timed(run) : time(run);
  figure(
    `${CHANGES.toLocaleString('en')} changes under ${says}`,
    ms(again),
    `taking them one after another ${ms(taken)}`,
    `the first time ${ms(first)}; ${run()} found; aim 1,000 ms`,
  );
}
