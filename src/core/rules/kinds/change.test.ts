import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { readInput } from '../../values/read-input';
import { Evaluation } from '../evaluate/evaluation';
import type { ChangeWhen } from './change';

const NOW = 46_089.5;
/** The contents of the cells a number of days ago; the first had nothing a week ago, the last is new. */
const rows = [
  { now: '5', dayAgo: '4', weekAgo: '' },
  { now: '10', dayAgo: '10', weekAgo: '8' },
  { now: '90', dayAgo: '100', weekAgo: '100' },
  { now: 'done', dayAgo: 'open', weekAgo: 'Done ' },
  { now: '', dayAgo: '3', weekAgo: '3' },
  { now: '7', dayAgo: undefined, weekAgo: undefined },
];

function matched(when: Omit<ChangeWhen, 'kind'>): number[] {
  const sheet = sheetFromTable({ rows: [['v'], ...rows.map(({ now }) => [now])], width: 1 }, { header: true });
  const history = {
    momentOf: (snapshot: string) => (snapshot === 'last week' ? NOW - 7 : undefined),
    valueBefore(_: number, slot: number, moment: number) {
      const row = rows[slot - 1];
      const input = moment <= NOW - 7 ? row?.weekAgo : row?.dayAgo;
      return input === undefined ? undefined : readInput(input).value;
    },
  };
  const evaluation = new Evaluation(sheet, {}, { now: NOW, history });
  evaluation.setRules([
    {
      id: 'r',
      name: 'R',
      on: true,
      settles: false,
      reads: { fields: [sheet.field(0).id] },
      when: { kind: 'change', ...when },
      paints: 'cell',
    },
  ]);
  const running = evaluation.activeRules[0]!;
  if (running.problem) throw new Error(running.problem.code);
  return rows.flatMap((_, at) => (running.outcomeAt(0, at + 1) >= 0 ? at : []));
}

test.each([
  ['changed since yesterday', { is: 'changed', within: { n: 1, unit: 'day' } }, [0, 2, 3, 4]],
  ['since a snapshot: texts meet whatever their case', { is: 'changed', since: 'last week' }, [0, 1, 2, 4]],
  ['rose', { is: 'rose', within: { n: 24, unit: 'hour' } }, [0]],
  ['rose by a quarter of what it was, exactly', { is: 'rose', by: '25%', since: 'last week' }, [1]],
  ['fell by 10 % or more takes 10 % exactly', { is: 'fell', by: '10%', within: { n: 1, unit: 'day' } }, [2]],
  ['fell by more than it did', { is: 'fell', by: 10.5, within: { n: 1, unit: 'day' } }, []],
  ['changed by an amount, either way', { is: 'changed', by: 2, since: 'last week' }, [1, 2]],
] as const)('%s', (_, when, expected) => expect(matched(when)).toEqual(expected));

test('a snapshot that is not there is a problem of the rule', () =>
  expect(() => matched({ is: 'rose', since: 'never' })).toThrow('missing-snapshot'));
