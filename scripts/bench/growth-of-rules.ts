// How the time of each kind of rule grows with the records, and how that of several rules grows with their number. The
// first time a rule makes what others will find: folded texts, statistics. n log n is 13x to 12x a step; beyond 30x,
// which leaves room for what no longer lies in the processor's caches, a line is marked.
import { randomLcg } from 'd3-random';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { FieldProfile } from '../../src/core/rules/kinds/kind';
import { KINDS, type When } from '../../src/core/rules/kinds/registry';
import type { Sheet } from '../../src/core/sheet/sheet';
import { isoFromSerial } from '../../src/core/values/dates/date-serial';
import { keysOf } from '../../src/core/values/typed-keys';
import { median } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { timed } from './time';

const TODAY = 46_000;
/** Records of 20 fields: 10,000 to 10,000,000 cells. */
const RECORDS = [500, 5000, 50_000, 500_000] as const;
const RULES = [5, 20, 100] as const;
const SLOW_GROWTH = 30;
const FIELDS = ['numbers', 'texts', 'dates'] as const;
const WORDS = ['Alder', 'Birch', 'Cedar', 'Dipper', 'Elm', 'Ford', 'late', 'brökèn', 'Ålder', 'Pool'];

function made(records: number, fields: readonly (typeof FIELDS)[number][] = FIELDS): Sheet {
  const random = randomLcg(5);
  const word = () => WORDS[Math.floor(random() * WORDS.length)] ?? '';
  const inputs = {
    numbers: () => String(Math.round(random() * 1e7) / 100),
    texts: () => `${word()} ${word()} ${Math.floor(random() * records)}`,
    dates: () => isoFromSerial(TODAY - Math.floor(random() * 1000)),
  };
  return sheetOf(fields, records, () => fields.map((field) => inputs[field]()));
}

const profile: FieldProfile = {
  numbers: 1000,
  least: 0,
  lowerQuartile: 25_000,
  median: 50_000,
  upperQuartile: 75_000,
  greatest: 100_000,
  commonText: 'late',
};

/** Milliseconds of a rule the first time, and once others have been there. */
function ofRule(sheet: Sheet, field: string, when: When): { readonly first: number; readonly again: number } {
  const run = () => new Evaluation(sheet, {}, { now: TODAY }).setRules([ruleOver(field, { ...when })]);
  const first = timed(run);
  return { first, again: median([0, 1, 2].map(() => timed(run))) };
}

const shown = (times: readonly number[]) => times.map((time) => `${time.toFixed(2)} ms`.padStart(11)).join('');

function growth(times: readonly number[]): number {
  // Below half a millisecond it is what every rule costs, whatever the records.
  return Math.max(...times.slice(1).map((time, at) => (time < 2 ? 0 : time / Math.max(0.5, times[at] ?? 0))));
}

console.log(`growth of rules: ${RECORDS.map((records) => (records * 20).toLocaleString('en')).join(', ')} cells`);
for (const kind of keysOf(KINDS))
  for (const field of FIELDS) {
    const when = KINDS[kind].defaults(profile);
    const times = RECORDS.map((records) => ofRule(made(records, [field]), field, when));
    for (const [says, list] of [
      ['first', times.map(({ first }) => first)],
      ['again', times.map(({ again }) => again)],
    ] as const)
      console.log(
        `  ${growth(list) > SLOW_GROWTH ? 'GROWS' : '     '} ${`${kind} over ${field}, ${says}`.padEnd(34)}${shown(list)}`,
      );
  }

console.log(`growth with the rules, of all kinds in turn: ${RULES.join(', ')} of them over 1,000,000 cells`);
const sheet = made(50_000);
const all = keysOf(KINDS).flatMap((kind) => FIELDS.map((field) => ruleOver(field, KINDS[kind].defaults(profile))));
const rulesOf = (count: number) =>
  Array.from({ length: count }, (_, at) => ({ ...all[at % all.length]!, id: `r${at}` }));
new Evaluation(sheet, {}, { now: TODAY }).setRules(rulesOf(100));
console.log(
  `        ${shown(RULES.map((count) => median([0, 1, 2].map(() => timed(() => new Evaluation(sheet, {}, { now: TODAY }).setRules(rulesOf(count)))))))}`,
);
