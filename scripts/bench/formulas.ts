// Formulas in rules and in cells, beside loops written by hand over the same arrays, in the same run.
import { randomLcg } from 'd3-random';
import { Calculation } from '../../src/core/formula/calculate/calculation';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { figure, ms } from './figures.mjs';
import { ruleOver, sheetOf } from './one-field';
import { time } from './time';
import { WorkMeter } from '../../src/core/formula/values/work-meter';

const random = randomLcg(13);
const RECORDS = 50_000;
const records = Array.from(
  { length: RECORDS },
  () => [random() * 100, random() * 100, random() < 0.3 ? 'x' : 'y', random() * 9, random() * 9] as const,
);
const built = sheetOf(['a', 'b', 'c', 'd', 'e', 'f'], RECORDS, (row) => ['', ...records[row]!.map(String)]);
const column = (at: number) => Float64Array.from(records, (record) => record[at] as number);
const [b, c, e, f] = [column(0), column(1), column(3), column(4)];
const isX = Uint8Array.from(records, (record) => Number(record[2] === 'x'));
const bits = new Uint32Array((RECORDS + 31) >>> 5);
const formula = '=AND($B1>$C1*0.9;OR($D1="x";$E1>=$F1))';
const evaluation = new Evaluation(built, {});
figure(
  `rule ${formula.replaceAll('$', '').replaceAll('1', '2')}, 50,000 records`,
  ms(time(() => evaluation.setRules([ruleOver('b', { kind: 'formula', formula })]))),
  `loop by hand ${ms(
    time(() => {
      bits.fill(0);
      for (let at = 0; at < RECORDS; at++)
        if (b[at]! > c[at]! * 0.9 && (isX[at] || e[at]! >= f[at]!)) bits[at >>> 5]! |= 1 << (at & 31);
    }),
  )}`,
  'within 3x of the loop',
);

const CELLS = 100_000;
const numbers = Float64Array.from({ length: CELLS }, () => random() * 100);
const calculated = sheetOf(['a', 'b'], CELLS, (row) => [String(numbers[row]), '=⟦a⟧*0.9+12/(⟦a⟧+1)']);
const calculation = new Calculation(calculated, {
  sheet: calculated,
  now: NaN,
  findSheet: () => undefined,
  findName: () => undefined,
  work: new WorkMeter(),
});
const into = new Float64Array(CELLS);
figure(
  'a field of 100,000 formulas calculated',
  ms(time(() => calculation.calculateAll())),
  `loop by hand ${ms(
    time(() => {
      for (let at = 0; at < CELLS; at++) into[at] = numbers[at]! * 0.9 + 12 / (numbers[at]! + 1);
    }),
  )}`,
  'within 5x of the loop',
);
