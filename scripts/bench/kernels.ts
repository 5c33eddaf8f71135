import { Evaluation } from '../../src/core/rules/evaluation';
import type { Rule } from '../../src/core/rules/rule';
import type { When } from '../../src/core/rules/kinds/registry';
import { Sheet } from '../../src/core/sheet/sheet';
import { randomLcg } from 'd3-random';
import { figure, median, ms } from './figures.mjs';

// Rules over 1,000,000 numbers, each beside the tight loop over a typed array and the same over row objects, in the same run.
const CELLS = 1_000_000;
const RUNS = 9;

const random = randomLcg(7);
const values = Float64Array.from({ length: CELLS }, () => Math.round(random() * 10_000) / 10);
const objects = Array.from(values, (value, at) => ({ id: `r${at}`, cells: { f: { kind: 'number', value } } }));
const built = new Sheet([{ id: 'f', widthPx: 100, format: null, unit: null }]);
values.forEach((value, at) => {
  const slot = built.appendRow({ id: `r${at}`, key: '', role: 'record' });
  built.columns[0]!.set(slot, String(value));
});

function time(work: () => void): number {
  return median(
    Array.from({ length: RUNS }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    }),
  );
}

function ruleTime(when: When): number {
  const evaluation = new Evaluation(built, {});
  const rule = (): Rule => ({ id: 'r', name: 'R', on: true, settles: false, reads: { fields: ['f'] }, when, paints: 'cell' });
  return time(() => evaluation.setRules([rule()]));
}

const bits = new Uint32Array((CELLS + 31) >>> 5);
function tightLoop(holds: (value: number) => boolean): void {
  bits.fill(0);
  for (let at = 0; at < CELLS; at++) if (holds(values[at]!)) bits[at >>> 5]! |= 1 << (at & 31);
}
const below = time(() => tightLoop((value) => value < 250));
const between = time(() => tightLoop((value) => value >= 250 && value <= 400));
const average = time(() => {
  let sum = 0;
  for (let at = 0; at < CELLS; at++) sum += values[at]!;
  const mean = sum / CELLS;
  tightLoop((value) => value > mean);
});
const objectsBelow = time(() => {
  const matched: string[] = [];
  for (const row of objects) if (row.cells.f.kind === 'number' && row.cells.f.value < 250) matched.push(row.id);
});

const beside = (loop: number, objectsTime?: number) => `tight loop ${ms(loop)}${objectsTime ? `, row objects ${ms(objectsTime)}` : ''}`;
figure('threshold over 1,000,000 numbers', ms(ruleTime({ kind: 'compare', is: '<', to: 250 })), beside(below, objectsBelow), 'within 2x of the loop');
figure('between over 1,000,000 numbers', ms(ruleTime({ kind: 'compare', is: 'between', to: [250, 400] })), beside(between), 'within 2x of the loop');
figure('above the average of 1,000,000 numbers', ms(ruleTime({ kind: 'average', is: 'above' })), beside(average), 'within 2x of the loop');

const evaluation = new Evaluation(built, {});
const six = Array.from({ length: 5 }, (_, at): Rule => ({
  id: `r${at}`,
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f'] },
  when: { kind: 'compare', is: '<', to: at * 100 },
  paints: 'cell',
}));
const whole = time(() => evaluation.setRules(six.map((rule) => ({ ...rule }))));
let edit = 0;
const one =
  time(() => {
    for (let again = 0; again < 100; again++, edit++) {
      const { effects } = built.apply({ kind: 'set-cells', cells: [{ row: `r${(edit * 7919) % CELLS}`, field: 'f', input: String(edit % 500) }] });
      evaluation.follow(effects);
    }
  }) / 100;
figure('one edit under five threshold rules, 1,000,000 cells', ms(one), `evaluating all anew ${ms(whole)}`, 'under 1/1,000 of it');
