import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { createSheet, emptySheet } from '../../src/server/sheets/create-sheet';
import { testDatabase } from '../support/test-database';

const { sql, url } = await testDatabase('backup');
const folder = mkdtempSync(join(tmpdir(), 'auxesis-backup-'));
afterAll(() => rmSync(folder, { recursive: true }));

const run = (script: string, file: string) =>
  spawnSync(process.execPath, [`scripts/${script}.mjs`, file], {
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  });
/** Every row of every table, as text. */
async function contents(): Promise<Record<string, string>> {
  const tables = await sql<
    { name: string }[]
  >`select tablename as name from pg_tables where schemaname = 'public' order by 1`;
  const all = await Promise.all(
    tables.map(({ name }) =>
      sql.unsafe<{ line: string }[]>(`select "${name}"::text as line from "${name}" order by 1`),
    ),
  );
  return Object.fromEntries(tables.map(({ name }, at) => [name, JSON.stringify(all[at])]));
}

test('a backup brings back everything as it was, and nothing that came after it', async () => {
  const person = 'p1';
  await sql`insert into person (id, email, name) values (${person}, 'mara@wrenfold.example', 'Mara')`;
  await createSheet(sql, { ...emptySheet('Kept'), owner: person });
  const before = await contents();
  const file = join(folder, 'whole');
  expect(run('backup', file)).toMatchObject({ status: 0, stderr: '' });
  await createSheet(sql, { ...emptySheet('Later'), owner: person });
  await sql`update person set name = 'Another'`;
  expect(await contents()).not.toEqual(before);
  expect(run('restore', file)).toMatchObject({ status: 0, stderr: '' });
  expect(await contents()).toEqual(before);
});

test('no backup is written over another', () => {
  const file = join(folder, 'there');
  writeFileSync(file, 'an earlier one');
  expect(run('backup', file)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('is there already') as string,
  });
  expect(readFileSync(file, 'utf8')).toBe('an earlier one');
});

test('what is cut off or no backup changes nothing', async () => {
  const whole = join(folder, 'cut');
  expect(run('backup', whole).status).toBe(0);
  const before = await contents();
  truncateSync(whole, Math.floor(readFileSync(whole).length * 0.7));
  writeFileSync(join(folder, 'none'), 'not a backup');
  for (const file of [whole, join(folder, 'none'), join(folder, 'nowhere')]) {
    expect(run('restore', file).status).toBe(1);
    expect(await contents()).toEqual(before);
  }
});
