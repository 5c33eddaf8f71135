import { rollup } from 'd3-array';
import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import { outcomeTallies } from './outcome-tallies';

const KEY = ['stonefly', 'mayfly', 'cased caddis'];
const ANSWERS = { Alder: ['stonefly', 'mayflu', ''], Birch: ['snail', 'mayfly', 'cased caddis'] };
const CLUES = ['Two tails', '', 'A house of sand'];

test('outcomes are counted by field and by record, as d3-array groups them', () => {
  const rows = KEY.map((answer, at) => [CLUES[at]!, answer, ANSWERS.Alder[at]!, ANSWERS.Birch[at]!]);
  const sheet = sheetFromTable(
    { rows: [['Clue', 'Key', 'Alder', 'Birch'], ...rows, ['', '', 'x', '']], width: 4 },
    { header: true },
  );
  const [, key, alder, birch] = sheet.fields.map(({ id }) => id);
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([
    {
      id: 'r',
      name: 'R',
      on: true,
      settles: false,
      reads: { fields: [alder!, birch!] },
      when: { kind: 'key', expect: { field: key! }, near: 1, looks: {} },
      paints: 'cell',
    },
  ]);
  // 0 empty, 1 right, 2 nearly right, 3 wrong: judged here by hand.
  const judged = [
    { field: 'Alder', record: 'Two tails', outcome: 1 },
    { field: 'Alder', record: 'mayfly', outcome: 2 },
    { field: 'Alder', record: 'A house of sand', outcome: 0 },
    { field: 'Birch', record: 'Two tails', outcome: 3 },
    { field: 'Birch', record: 'mayfly', outcome: 1 },
    { field: 'Birch', record: 'A house of sand', outcome: 1 },
  ];
  const by = (of: 'field' | 'record') =>
    Array.from(
      rollup(
        judged,
        (members) => {
          const counts = [0, 0, 0, 0];
          for (const { outcome } of members) counts[outcome]!++;
          return counts;
        },
        (each) => each[of],
      ),
      ([label, outcomes]) => ({ label, outcomes }),
    );
  const whole = (tallies: readonly { label: string; outcomes: readonly number[] }[]) =>
    tallies.map(({ label, outcomes }) => ({ label, outcomes: [0, 1, 2, 3].map((outcome) => outcomes[outcome] ?? 0) }));
  const { fields, records } = outcomeTallies(evaluation, 'r');
  expect(whole(fields)).toEqual(by('field'));
  expect(whole(records)).toEqual(by('record'));
  expect(outcomeTallies(evaluation, 'gone')).toEqual({ fields: [], records: [] });
});
