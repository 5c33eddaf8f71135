import { afterAll, expect, test } from 'vitest';
import { connect, database, longWork } from '../../src/server/database';
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
