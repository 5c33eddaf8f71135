// npm run linked-demo [-- ROWS]: makes a table of readings in a database of its own, in the cluster of npm start, with a
// role that may only read, and a sheet of the demo's owner that shows it.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeLinkedTable } from './linked-table.mjs';
import { Cluster } from './postgres.mjs';
import { main, run, Trouble } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const MOST = 100_000_000;

await main(async () => {
  const rows = Number(process.argv[2] ?? 1_000_000);
  if (!(Number.isInteger(rows) && rows >= 1 && rows <= MOST))
    throw new Trouble(`"${process.argv[2]}" is no number of rows from 1 to ${MOST}.`);
  const cluster = new Cluster(root, 'postgres');
  if (!cluster.exists()) throw new Trouble('There is no database yet. Run "npm start" first, and leave it running.');
  const wasRunning = cluster.runningPort() !== undefined;
  const database = await cluster.start('auxesis');
  console.log(`Making ${rows.toLocaleString('en')} readings...`);
  const address = await makeLinkedTable(cluster.adminUrl, rows);
  run(process.execPath, ['--import', 'tsx', 'scripts/linked-demo-sheet.ts', address], {
    cwd: root,
    env: { DATABASE_URL: database, ...cluster.linkSettings },
    quiet: false,
  });
  if (!wasRunning) cluster.stop();
});
