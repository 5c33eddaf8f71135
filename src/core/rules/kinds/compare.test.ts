import { randomLcg } from 'd3-random';
import { expect, test } from 'vitest';
import { Evaluation } from '../evaluate/evaluation';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { COMPARISONS } from './compare';
import { keysOf } from '../../values/typed-keys';

const INPUTS = [
  '',
  '0',
  '-0',
  '3',
  '3.0',
  '-2.5',
  '7',
  '14',
  'Weir',
  'weir',
  'Mill',
  'TRUE',
  '#N/A',
  '1e308',
  '-1e308',
];
const DATES = ['2026-03-08', '2026-03-09 06:00'];

// Over a whole column two fields are compared in loops, by one cell as values: the same rule, the same answer.
test.each(['without dates', 'with dates'])(
  'another field of the record, %s: all cells are as each by itself',
  (how) => {
    const random = randomLcg(0.4);
    const inputs = how === 'with dates' ? [...INPUTS, ...DATES] : INPUTS;
    const input = () => inputs[Math.floor(random() * inputs.length)]!;
    const rows = [['Own', 'Other'], ...Array.from({ length: 333 }, () => [input(), input()])];
    const sheet = sheetFromTable({ rows, width: 2 }, { header: true });
    const field = sheet.field(1).id;
    for (const is of keysOf(COMPARISONS).filter((name) => name !== 'between' && name !== 'outside'))
      for (const scaled of [{}, { times: 2 }, { plus: -1 }, { times: 0.5, plus: 3 }])
        for (const more of [{}, { magnitude: true }, { asShown: true }]) {
          const evaluation = new Evaluation(sheet, {});
          const when = { kind: 'compare', is, to: { field, ...scaled }, ...more } as const;
          const rule = { id: 'r', name: 'R', on: true, settles: false, paints: 'cell', look: { bold: true } } as const;
          evaluation.setRules([{ ...rule, reads: { fields: [sheet.field(0).id] }, when }]);
          const running = evaluation.activeRules[0]!;
          const slots = sheet.order.slice(1);
          expect(slots.map((slot) => running.outcomeAt(0, slot))).toEqual(slots.map((slot) => running.judge(0, slot)));
        }
  },
);
