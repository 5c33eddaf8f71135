import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import postgres from 'postgres';
import { afterAll, expect, test } from 'vitest';
import { Pooler, PGBOUNCER } from '../../scripts/pooler.mjs';
import { atPort, Replica } from '../../scripts/replica.mjs';
import { connect, type Sql } from '../../src/server/database';
import { Replicas } from '../../src/server/replicas';
import { isMissing } from '../support/is-missing';
import { testDatabase } from '../support/test-database';

const { sql, url } = await testDatabase('replicas_test');
const replica = new Replica(join(import.meta.dirname, '../..'), `replica-${process.pid}`) as Replica & {
  copy(primary: { readonly adminUrl: string }, name: string): Promise<number>;
};
const copyUrl = atPort(url, await replica.copy({ adminUrl: process.env.DATABASE_URL! }, 'r'));
const copy = connect(copyUrl);
const folder = mkdtempSync(join(tmpdir(), 'auxesis-pooler-'));
afterAll(async () => {
  await Promise.all([sql.end(), copy.end()]);
  replica.remove();
  rmSync(folder, { recursive: true, force: true });
});

const source = async (from: Sql): Promise<'primary' | 'replica'> =>
  (await from<{ is_copy: boolean }[]>`select pg_is_in_recovery() as is_copy`)[0]!.is_copy ? 'replica' : 'primary';

test('what is read from a replica is never older than what was kept before; one that is late is passed over', async () => {
  await sql`create table kept (n int)`;
  const replicas = new Replicas(sql, [copy]);
  const newest = () =>
    replicas.read(sql, async (from) => [
      (await from<{ n: number }[]>`select max(n) as n from kept`)[0]!.n,
      await source(from),
    ]);
  const sources: unknown[] = [];
  for (let n = 0; n < 50; n++) {
    await sql`insert into kept values (${n})`;
    const [found, from] = await newest();
    expect(found).toBe(n);
    sources.push(from);
  }
  expect(sources).toContain('replica');
  await copy`select pg_wal_replay_pause()`;
  await sql`insert into kept values (50)`;
  expect(await newest()).toEqual([50, 'primary']);
  await copy`select pg_wal_replay_resume()`;
  // It is left alone for a while, and then read again.
  await expect.poll(newest, { timeout: 5000 }).toEqual([50, 'replica']);
  // What fails there is read where it can be.
  const lost = postgres(copyUrl.replace(/:\d+\//, ':9/'), { max: 1, connect_timeout: 1 }) as unknown as Sql;
  expect(await new Replicas(sql, [lost]).read(sql, source)).toBe('primary');
});

test('of several hosts the one that is the primary is taken', async () => {
  const { port } = new URL(copyUrl);
  const both = connect(`${url.replace('127.0.0.1', `127.0.0.1:${port},127.0.0.1`)}?target_session_attrs=primary`);
  expect(await source(both)).toBe('primary');
  await both.end();
});

test.skipIf(isMissing(PGBOUNCER))(
  'statements and transactions go through PgBouncer, which lends a connection for one of them at a time',
  async () => {
    const pooler = new Pooler('.', { place: folder, url });
    const pooled = connect(await pooler.start(), { isPooled: true });
    try {
      const times = async (count: number, work: () => Promise<unknown>): Promise<void> => {
        for (let at = 0; at < count; at++) await work();
      };
      // At the same time, so that they share few connections: with values and without, alone and together.
      await Promise.all([
        ...Array.from({ length: 12 }, (_, at) => times(100, () => pooled`select ${at}::int, ${['a', 'b']}::text[]`)),
        ...Array.from({ length: 6 }, () => times(100, () => pooled`select 1`)),
        ...Array.from({ length: 6 }, () =>
          times(50, () =>
            pooled.begin(async (tx) => {
              await Promise.all([tx`insert into kept values (${100})`, tx`select count(*) from kept`]);
              await tx`select ${'x'}::text`;
            }),
          ),
        ),
      ]);
      expect(await sql`select count(*)::int from kept where n = 100`).toEqual([{ count: 300 }]);
      // The pooler sets the limits that the app would.
      expect(await pooled`show statement_timeout`).toEqual([{ statement_timeout: '30s' }]);
    } finally {
      await pooled.end();
      pooler.stop();
    }
  },
);
