import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { database } from './database';
import { painter } from './painter/painter';
import { within } from './within';

/** How long the database may take to answer. */
const PATIENCE_MS = 3000;

/** The requirements of the server: the database, its schema as new as the program, and worker processes that start. */
export async function readiness(): Promise<{
  readonly database: boolean;
  readonly migrations: boolean;
  readonly workers: boolean;
}> {
  const [ran, workers] = await Promise.all([
    within(ranMigrations(), PATIENCE_MS),
    within(painter().isAlive(), PATIENCE_MS),
  ]);
  const wanted = (await readdir(join(process.cwd(), 'src/server/sql/migrations'))).filter((name) =>
    name.endsWith('.sql'),
  );
  return {
    database: ran !== undefined,
    migrations: ran !== undefined && wanted.every((name) => ran.has(name)),
    workers: workers === true,
  };
}

async function ranMigrations(): Promise<ReadonlySet<string>> {
  const rows = await database()<{ name: string }[]>`select name from schema_migration`;
  return new Set(rows.map(({ name }) => name));
}
