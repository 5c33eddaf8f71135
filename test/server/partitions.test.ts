import { expect, test } from 'vitest';
import { fillSheets } from '../../scripts/load/growth.mjs';
import { makeOrdinarySheet, ordinaryWork } from '../../scripts/load/ordinary-work';
import { connect, type Sql } from '../../src/server/database';
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
const contents = async (from: Sql) =>
  Object.fromEntries(
    await Promise.all(
      TABLES.map(async (table) => [table, await from`select each::text from ${from(table)} each order by each::text`]),
    ),
  ) as Record<string, { readonly length: number }>;

/** Keys, checks, references and indexes, by name; of the tables themselves, not of their parts. */
const shape = (from: Sql) => from`
  select conrelid::regclass::text as of_table, conname as name, pg_get_constraintdef(oid) as says from pg_constraint
  where connamespace = 'public'::regnamespace and conparentid = 0 and conrelid::regclass::text !~ '_[0-9]+_[0-9]+$'
  union all select tablename, indexname, replace(indexdef, ' ON ONLY ', ' ON ') from pg_indexes
  where schemaname = 'public' and indexname !~ '_[0-9]+_[0-9]+_'
  order by 1, 2, 3`;

/** Does work over connections of its own, which have reported to PostgreSQL's counters once they are gone. */
async function counted(name: string, work: (own: Sql) => Promise<void>): Promise<void> {
  const own = connect(`${url}?application_name=${name}`, { max: 2 });
  await work(own);
  await own.end();
  await expect
    .poll(() => sql`select pid from pg_stat_activity where application_name = ${name}`, { timeout: 10_000 })
    .toHaveLength(0);
}

test('laying sheets into parts changes nothing that is in them, nor what holds for them; then what is done to a sheet touches one part', async () => {
  let sheets: readonly string[] = [];
  const work = { person: person.id, session };
  await counted('before', async (own) => {
    sheets = await Promise.all(Array.from({ length: 20 }, () => makeOrdinarySheet(own, person.id)));
    for (const sheet of sheets) await ordinaryWork(own, { ...work, sheet });
    const [before, whole] = [await contents(own), await shape(own)];
    expect(before.finding).toHaveLength(20);
    for (const parts of [3, 8]) {
      await own`select partition_sheets(${parts}::int)`;
      expect(await contents(own)).toEqual(before);
      expect(await shape(own)).toEqual(whole);
    }
    await expect(own`select partition_sheets(8)`).rejects.toThrow('sheets lie in 8 parts already');
    // Among twenty sheets, looking at all of them would be the quickest way.
    await fillSheets(own, 2000);
  });

  // PostgreSQL counts what is read and written, also by its functions and references.
  await sql`select pg_stat_reset()`;
  await counted('after', async (own) => {
    for (let times = 0; times < 10; times++) await ordinaryWork(own, { ...work, sheet: sheets[0]! });
  });
  const touched = await sql<{ of_table: string; parts: number }[]>`
    select regexp_replace(relname, '_8_[0-9]$', '') as of_table, count(*)::int as parts from pg_stat_user_tables
    where relname ~ '_8_[0-9]$' and coalesce(seq_scan, 0) + coalesce(idx_scan, 0) + n_tup_ins + n_tup_upd + n_tup_del > 0
    group by 1 order by 1`;
  expect(touched).toEqual(
    ['finding', 'sheet', 'sheet_change', 'sheet_row'].map((of_table) => ({ of_table, parts: 1 })),
  );

  // Those of another part went on as they were; a sheet that is removed leaves nothing.
  await sql`delete from sheet where id like 'full%'`;
  for (const sheet of sheets) expect(await deleteSheet(sql, sheet)).toBe(true);
  for (const [table, { length }] of Object.entries(await contents(sql))) expect([table, length]).toEqual([table, 0]);
});
