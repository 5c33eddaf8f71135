import { expect, test } from 'vitest';
import { auxesis, file, rules } from '../command-line/run-command';
import { testDatabase } from '../support/test-database';

const { sql, url } = await testDatabase('linked_command');

test('the command line counts what rules match in a database, and prints them as a view of it', async () => {
  const given = [
    { id: 'low', reads: { fields: ['OXYGEN'] }, when: { kind: 'compare', is: '<', to: 5 } },
    { id: 'first', reads: { fields: ['Station'] }, when: { kind: 'repeat', is: 'first' } },
    {
      id: 'when',
      reads: { fields: ['Station'] },
      when: { kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } },
    },
  ];
  const path = file('linked.json', rules(...given));
  await sql.unsafe(`create table "Water readings" ("Station" text, "Oxygen" numeric, at timestamptz);
    insert into "Water readings" values ('Alder Weir', 4.6, '2026-03-08'), ('alder  weir', 9, '2026-03-09'), ('Birch Ford', null, '2026-03-10')`);
  const asked = (...more: string[]) => auxesis(['evaluate', url, path, '--table', '"Water readings"', ...more]);
  expect(asked().stdout).toContain('name the columns that order the table, which has no primary key');
  expect(asked('--key', 'Nowhere').stderr).toMatch(/there is no column "Nowhere"/);
  const counted = asked('--key', 'at', '--fail-if', 'low');
  expect(counted.status).toBe(1);
  const report = JSON.parse(counted.stdout) as {
    rules: { id: string; matched: number; problem: { code: string } | null }[];
  };
  expect(report.rules.map(({ id, matched, problem }) => [id, matched, problem?.code ?? null])).toEqual([
    ['low', 1, null],
    ['first', 1, null],
    ['when', 0, 'not-in-sql'],
  ]);
  expect(asked('--key', 'at', '--fail-if', 'when').stderr).toMatch(/cannot be judged/);
  const view = auxesis([
    'sql',
    path,
    '--table',
    '"Water readings"',
    '--columns',
    'Station:text,Oxygen:numeric,at:timestamptz',
    '--key',
    'at',
    '--as',
    'judged',
  ]);
  expect(view.stdout).toMatch(/^-- 2 of 3 rules/);
  await sql.unsafe(view.stdout);
  expect(await sql`select "Station", "low: Oxygen" as low, "first: Station" as first from judged order by at`).toEqual([
    { Station: 'Alder Weir', low: true, first: true },
    { Station: 'alder  weir', low: false, first: false },
    { Station: 'Birch Ford', low: false, first: false },
  ]);
});
