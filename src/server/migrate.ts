import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Sql } from './database';

/**
 * Brings the database's schema up to date: runs the numbered files of a folder that have not run yet, each in a
 * transaction, one process at a time. Returns the names of those that ran.
 */
export async function migrate(sql: Sql, folder: string): Promise<string[]> {
  await sql`create table if not exists schema_migration (name text primary key, ran_at timestamptz not null default now())`;
  const names = (await readdir(folder)).filter((name) => /^\d{4}_.*\.sql$/.test(name)).sort();
  const ran: string[] = [];
  for (const name of names) {
    const text = await readFile(join(folder, name), 'utf8');
    await sql.begin(async (tx) => {
      await tx`lock table schema_migration in exclusive mode`;
      const [done] = await tx`select 1 from schema_migration where name = ${name}`;
      if (done) return;
      await tx.unsafe(text);
      await tx`insert into schema_migration (name) values (${name})`;
      ran.push(name);
    });
  }
  return ran;
}
