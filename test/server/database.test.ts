import { afterAll, expect, test } from 'vitest';
import { connect, database, longWork, type Transaction } from '../../src/server/database';
import { isUnavailable } from '../../src/server/unavailable';
import { testDatabase } from '../support/test-database';

const { url } = await testDatabase('database_test');
const hasty = connect(url, { statementMs: 200, idleMs: 300 });
afterAll(() => hasty.end());

test('what the app asks has limits of time, and long work has connections of its own', async () => {
  const limitsOf = async (sql: typeof hasty) => [
    (await sql`show statement_timeout`)[0]!.statement_timeout,
    (await sql`show idle_in_transaction_session_timeout`)[0]!.idle_in_transaction_session_timeout,
  ];
  expect(await limitsOf(database())).toEqual(['30s', '1min']);
  expect(await limitsOf(longWork())).toEqual(['10min', '1min']);
  await Promise.all([database().end(), longWork().end()]);
});

test('the database ends a statement that takes too long, and the connection goes on', async () => {
  const error: unknown = await hasty`select pg_sleep(20)`.catch((caught: unknown) => caught);
  // PostgreSQL, appendix A: 57014 is query_canceled.
  expect(error).toMatchObject({ code: '57014' });
  expect(isUnavailable(error)).toBe(true);
  expect(await hasty`select 1 as one`).toEqual([{ one: 1 }]);
});

test('the database ends a transaction that waits for the app, so that what it holds is free again', async () => {
  await hasty`create table held (n int)`;
  const waiting = hasty.begin(async (tx) => {
    await tx`lock table held`;
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await tx`insert into held values (1)`;
  });
  const ended = waiting.then(
    () => 'kept',
    () => 'ended',
  );
  await new Promise((resolve) => setTimeout(resolve, 900));
  await hasty`insert into held values (2)`;
  expect(await ended).toBe('ended');
  expect(await hasty`select n from held`).toEqual([{ n: 2 }]);
});

// The driver that is published does neither: see patches/.
test('a transaction whose connection is lost does nothing more, over whichever connection', async () => {
  const own = connect(url, { max: 1 });
  await own`create table left_over (n int)`;
  let goesOn: Promise<unknown> = Promise.resolve();
  const caught = await own.begin((tx) => (goesOn = work(tx))).catch((error: unknown) => error);
  expect(isUnavailable(caught)).toBe(true);
  expect(isUnavailable(await goesOn.catch((error: unknown) => error))).toBe(true);
  expect(await own`select * from left_over`).toEqual([]);
  await own.end();

  async function work(tx: Transaction): Promise<void> {
    const [{ pid }] = (await tx`select pg_backend_pid() as pid`) as unknown as [{ pid: number }];
    await hasty`select pg_terminate_backend(${pid})`;
    // The pool has another connection by now.
    await new Promise((resolve) => setTimeout(resolve, 200));
    await own`select 1`.catch(() => own`select 1`);
    await tx`insert into left_over values (1)`;
  }
});

test('a pool goes on after its connections were cut, whatever was on its way', async () => {
  const cut = connect(url, { max: 4 });
  let isOver = false;
  const works = Array.from({ length: 12 }, async (_, at) => {
    while (!isOver)
      await (
        at % 2
          ? cut`select ${at}::int, ${'x'.repeat(at)}::text`
          : cut.begin((tx) => Promise.all([tx`select 1`, tx`select ${at}::int`]))
      ).catch(() => new Promise((resolve) => setTimeout(resolve, 1)));
  });
  for (let times = 0; times < 60; times++) {
    await hasty`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`;
    await new Promise((resolve) => setTimeout(resolve, 15));
  }
  isOver = true;
  await Promise.all(works);
  expect(await Promise.all(Array.from({ length: 8 }, () => cut`select 1 as one`))).toHaveLength(8);
  await cut.end();
});
