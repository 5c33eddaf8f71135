import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll } from 'vitest';
import { OWN_ALL } from '../../src/core/sharing/role';
import { connect, type Sql } from '../../src/server/database';
import { migrate } from '../../src/server/migrate';

export const MIGRATIONS = join(fileURLToPath(new URL('../..', import.meta.url)), 'src/server/sql/migrations');

/** Who makes the changes of tests that are not about people. */
export const TESTER = { author: 'test', role: 'owner', own: OWN_ALL } as const;

/** A fresh database on the test server, named after the file that uses it; gone when its tests are over. */
export async function testDatabase(name: string): Promise<{ sql: Sql; url: string }> {
  const server = process.env.DATABASE_URL;
  if (!server) throw new Error('DATABASE_URL is not set: run the tests with "npm test"');
  const admin = connect(server);
  await admin.unsafe(`drop database if exists "${name}" with (force)`);
  await admin.unsafe(`create database "${name}"`);
  const url = server.replace(/\/[^/]*$/, `/${name}`);
  const sql = connect(url);
  await migrate(sql, MIGRATIONS);
  afterAll(async () => {
    await sql.end();
    await admin.unsafe(`drop database "${name}" with (force)`);
    await admin.end();
  });
  return { sql, url };
}
