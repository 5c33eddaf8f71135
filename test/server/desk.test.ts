import { expect, test } from 'vitest';
import type { Rule } from '../../src/core/rules/shape/rule';
import type { Operation } from '../../src/core/sheet/change';
import { newField } from '../../src/core/sheet/field';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { takeChange } from '../../src/server/sheets/take-change';
import { testDatabase, TESTER } from '../support/test-database';

const { sql, url } = await testDatabase('desk');
// The keeper takes the process's own pool.
Object.assign(process.env, { DATABASE_URL: url });
const { FindingsKeeper } = await import('../../src/server/findings/keeper');
const { muteRule, seeAll } = await import('../../src/server/sql/follow');
const { listDesk } = await import('../../src/server/sql/desk');
const { putMember } = await import('../../src/server/sql/member');

await sql`insert into person (id, email, name) values ('wren', 'wren@example.org', 'Wren'), ('ines', 'ines@example.org', 'Ines')`;

const low = (id: string, to: number): Rule => ({
  id,
  name: id,
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when: { kind: 'compare', is: '<', to },
  paints: 'cell',
  look: { fill: '#aa0000' },
});

test('a sheet is listed with its filled records, its rules with their counts, and what is new to each person', async () => {
  const sheet = await createSheet(sql, {
    name: 'Readings',
    owner: 'wren',
    fields: [newField('a', 'a0')],
    rows: ['7', '8', ''].map((value, at) => ({
      id: `r${at}`,
      key: `a${at}`,
      role: 'record',
      cells: Object.fromEntries(value === '' ? [] : [['a', value]]),
    })),
    rules: [low('low', 5), low('lower', 4)].map((rule, at) => ({ id: rule.id, key: `a${at}`, rule })),
  });
  await putMember(sql, sheet, { person: 'ines', role: 'viewer' });
  let made = 0;
  const enter = (row: string, input: string) => {
    const operations: Operation[] = [{ kind: 'set-cells', cells: [{ row, field: 'a', input }] }];
    return takeChange(sql, { sheet, by: TESTER, change: { id: `d${++made}`, operations } });
  };
  const desk = async (person: string) => {
    const [{ records, rules, legend, unseen } = {}] = await listDesk(sql, person);
    return { records, rules, legend: legend?.map(({ name, painted }) => [name, painted]), unseen };
  };

  // Nothing has entered a rule yet: how much they paint is not known.
  expect(await desk('wren')).toEqual({
    records: 2,
    rules: 2,
    legend: [
      ['low', null],
      ['lower', null],
    ],
    unseen: 0,
  });
  await enter('r0', '4.5');
  await enter('r1', '3');
  await new FindingsKeeper(sql).look(sheet);
  expect(await desk('wren')).toMatchObject({
    legend: [
      ['low', 2],
      ['lower', 1],
    ],
    unseen: 3,
  });
  // Readers without rules hear nothing of them.
  expect(await desk('ines')).toEqual({ records: 2, rules: null, legend: [], unseen: 0 });

  await muteRule(sql, { sheet, person: 'wren' }, { rule: 'lower', isMuted: true });
  expect(await desk('wren')).toMatchObject({ unseen: 2 });
  await seeAll(sql, { sheet, person: 'wren' }, undefined);
  expect(await desk('wren')).toMatchObject({ unseen: 0 });
});
