import { expect, test } from 'vitest';
import { makeOrdinarySheet, ordinaryWork } from '../../scripts/load/ordinary-work';
import { connect } from '../../src/server/database';
import { deleteSheet } from '../../src/server/sql/sheet';
import { peopleOf } from '../support/test-people';
import { testDatabase } from '../support/test-database';

const { sql, url } = await testDatabase('partitions');
const { session, person } = await peopleOf(sql).account('mara');
const TABLES = [
  'sheet',
  'sheet_row',
  'sheet_change',
  'finding',
  'finding_note',
  'finding_seen',
  'sheet_rule',
  'sheet_field',
];

/** Everything that is in the tables, in order. */
const contents = async () =>
  Object.fromEntries(
    await Promise.all(
      TABLES.map(async (table) => [table, await sql`select each::text from ${sql(table)} each order by each::text`]),
    ),
  ) as Record<string, { readonly length: number }>;

/** Keys, checks, references and indexes, by name; of the tables themselves, not of their parts. */
const shape = () => sql`
  select conrelid::regclass::text as of_table, conname as name, pg_get_constraintdef(oid) as says from pg_constraint
  where connamespace = 'public'::regnamespace and conparentid = 0 and conrelid::regclass::text !~ '_[0-9]+_[0-9]+$'
  union all select tablename, indexname, replace(indexdef, ' ON ONLY ', ' ON ') from pg_indexes
  where schemaname = 'public' and indexname !~ '_[0-9]+_[0-9]+_'
  order by 1, 2, 3`;

test('laying sheets into parts changes nothing that is in them, nor what holds for them; then what is done to a sheet touches one part', async () => {
  const sheets = await Promise.all(Array.from({ length: 20 }, () => makeOrdinarySheet(sql, person.id)));
  const work = { person: person.id, session };
  for (const sheet of sheets) await ordinaryWork(sql, { ...work, sheet });
  const [before, whole] = [await contents(), await shape()];
  expect(before.finding).toHaveLength(20);
  for (const parts of [3, 8]) {
    await sql`select partition_sheets(${parts}::int)`;
    expect(await contents()).toEqual(before);
    expect(await shape()).toEqual(whole);
  }
  await expect(sql`select partition_sheets(8)`).rejects.toThrow('sheets lie in 8 parts already');

  // PostgreSQL counts what is read and written, also by its functions and references.
  const own = connect(url, { max: 2 });
  await own`select pg_stat_reset()`;
  for (let times = 0; times < 10; times++) await ordinaryWork(own, { ...work, sheet: sheets[0]! });
  await own.end();
  const touched = async () =>
    sql<{ of_table: string; parts: number }[]>`
      select regexp_replace(relname, '_8_[0-9]$', '') as of_table, count(*)::int as parts from pg_stat_user_tables
      where relname ~ '_8_[0-9]$' and coalesce(seq_scan, 0) + coalesce(idx_scan, 0) + n_tup_ins + n_tup_upd + n_tup_del > 0
      group by 1 order by 1`;
  await expect
    .poll(touched)
    .toEqual(['finding', 'sheet', 'sheet_change', 'sheet_row'].map((of_table) => ({ of_table, parts: 1 })));

  // Those of another part went on as they were; a sheet that is removed leaves nothing.
  for (const sheet of sheets) expect(await deleteSheet(sql, sheet)).toBe(true);
  for (const [table, { length }] of Object.entries(await contents())) expect([table, length]).toEqual([table, 0]);
});
