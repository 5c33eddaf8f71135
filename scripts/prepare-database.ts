import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { seedDemo } from '../src/demo/seed-demo';
import { connect } from '../src/server/database';
import { settings } from '../src/server/settings';
import { migrate } from '../src/server/migrate';

// Migrates the database that DATABASE_URL names, and seeds the demo once.
const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set');
const sql = connect(url);
try {
  const ran = await migrate(sql, join(fileURLToPath(new URL('..', import.meta.url)), 'src/server/sql/migrations'));
  if (ran.length) console.log(`Database brought up to date: ${ran.join(', ')}`);
  if (settings().demo && (await seedDemo(sql, new Date()))) console.log('Demo data put in.');
} finally {
  await sql.end();
}
