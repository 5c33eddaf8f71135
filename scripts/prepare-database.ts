import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { seedDemo } from '../src/demo/seed-demo';
import { connect } from '../src/server/database';
import { settings } from '../src/server/settings';
import { migrate } from '../src/server/migrate';

/** How long a step of a migration may take: one may write every row again. */
const STEP_MS = 6 * 3_600_000;

// Migrates the database that DATABASE_URL names, past a pooler, and seeds the demo once.
const { databaseUrl, databaseDirectUrl, demo } = settings();
const sql = connect(databaseDirectUrl ?? databaseUrl, { statementMs: STEP_MS, idleMs: STEP_MS });
try {
  const ran = await migrate(sql, join(fileURLToPath(new URL('..', import.meta.url)), 'src/server/sql/migrations'));
  if (ran.length) console.log(`Database brought up to date: ${ran.join(', ')}`);
  if (demo && (await seedDemo(sql, new Date()))) console.log('Demo data put in.');
} finally {
  await sql.end();
}
