// Rules by example: how many planted rules are found after six examples, and how long 100,000 records take, beside
// evaluating one of the proposals alone.
import { randomLcg } from 'd3-random';
import { FAMILIES, plantedRules, type Choosing, type Family } from '../../test/support/planted-rule';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { induceRules } from '../../src/core/rules/induce/induce-rules';
import type { ExamplesGiven } from '../../src/core/rules/induce/proposal';
import { isoFromSerial } from '../../src/core/values/dates/date-serial';
import { figure, ms } from './figures.mjs';
import { sheetOf } from './one-field';
import { time } from './time';

const RULES = 500;
const EXAMPLES = 6;
const RECORDS = 100_000;
const TODAY = 46_000;

for (const choosing of ['at random', 'asked', 'corrected'] satisfies Choosing[]) {
  const found = new Map<Family, number>(FAMILIES.map((family) => [family, 0]));
  for (const rule of plantedRules(RULES, randomLcg(0.5))) {
    const place = rule.placeAfter(EXAMPLES, choosing);
    const { family } = rule.planted;
    if (place >= 0 && place < 3) found.set(family, (found.get(family) ?? 0) + 1);
  }
  const all = [...found.values()].reduce((sum, each) => sum + each, 0);
  const each = [...found].map(([family, count]) => `${family} ${count}`).join(', ');
  console.log(
    `${RULES} planted rules, ${EXAMPLES} examples ${choosing}: ${((100 * all) / RULES).toFixed(1)} % among the first ` +
      `three proposals (of ${RULES / FAMILIES.length} each: ${each})`,
  );
}

const random = randomLcg(0.7);
const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const FIELDS = {
  Serial: () => `WR-${Math.floor(random() * 90_000)}`,
  Station: () => one(['Alder Weir', 'Birch Pool', 'Cedar Ford']),
  State: () => one(['open', 'done', 'late', '']),
  Marks: () => String(Math.floor(random() * 101)),
  Level: () => (random() * 14).toFixed(1),
  Plan: () => String(20 + Math.floor(random() * 180)),
  Day: () => isoFromSerial(TODAY + Math.floor(random() * 180) - 120),
  Note: () => `${one(['calm', 'rain', 'foam'])} ${one(['low', 'clear'])} ${Math.floor(random() * RECORDS)}`,
  Count: () => String(Math.floor(random() * 10_000)),
  Share: () => (random() * 100).toFixed(2),
  Crew: () => one(['North', 'South', 'East']),
  Again: () => String(Math.floor(random() * 100)),
};
const names = Object.keys(FIELDS);
const sheet = sheetOf(names, RECORDS, () => Object.values(FIELDS).map((input) => input()));
const evaluation = new Evaluation(sheet, {}, { now: TODAY });
for (const paints of ['cell', 'record'] as const)
  for (const column of [names.indexOf('Marks'), names.indexOf('Level'), names.indexOf('Note')]) {
    const cells = [5, 17, 33, 1000, 5000, 70_000].map((slot) => ({ column, slot }));
    const number = (slot: number) => sheet.column(column).numberAt(slot) || 0;
    cells.sort((a, b) => number(a.slot) - number(b.slot));
    const given: ExamplesGiven = {
      wanted: [{ look: { fill: '#ffdd00' }, cells: cells.slice(0, 3) }],
      unwanted: cells.slice(3),
      paints,
    };
    const [best] = induceRules(evaluation, given).proposals;
    if (!best) continue;
    const rule = { id: 'r', name: '', on: true, ...best.idea };
    const alone = time(() => new Evaluation(sheet, {}, { now: TODAY }).setRules([{ ...rule }]));
    const all = time(() => induceRules(evaluation, given));
    figure(
      `by example, ${paints === 'cell' ? 'cells' : 'records'} by ${names[column]}, 100,000 records x ${names.length}`,
      ms(all),
      `one rule ${ms(alone)}`,
      'aim 300 ms',
    );
  }
