// npm run load: how many changes a second the app takes, and how soon others see them, beside a bare server that only
// keeps them (load/bare-server.mjs), both under the same clients, in turns. Without options all of it; with some only
// that: npm run load -- --writers 20 --sheets 1 --readers 50 --rate 100 --seconds 10
// npm run load -- growth: what people do, with ever more sheets in the database and changes in a log.
// npm run load -- plans: how the database does the statements that are used most (load/plans.ts).
import { spawn } from 'node:child_process';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run, Trouble } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

const OPTIONS = ['writers', 'sheets', 'readers', 'rate', 'seconds', 'rounds'];

/** The numbers that were given as options. */
function givenOptions() {
  const { values, positionals } = parseArgs({
    options: Object.fromEntries(OPTIONS.map((name) => [name, { type: 'string' }])),
    allowPositionals: true,
  });
  const given = Object.fromEntries(Object.entries(values).map(([name, value]) => [name, Number(value)]));
  for (const [name, value] of Object.entries(given))
    if (!(value > 0) && !(name === 'readers' && value === 0)) throw new Trouble(`--${name} takes a number above 0.`);
  const [what] = positionals;
  if (what !== undefined && !['growth', 'plans'].includes(what))
    throw new Trouble(`"${what}" is not measured: "growth", "plans", or options.`);
  return { what, given };
}

/** Starts the bare server; like `serveApp`. */
async function serveBare(database, port) {
  const server = spawn(process.execPath, ['scripts/load/bare-server.mjs'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: database, PORT: String(port) },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const over = new Promise((resolve) => server.once('exit', resolve));
  const address = `http://127.0.0.1:${port}`;
  while (server.exitCode === null && !(await fetch(address).catch(() => null)))
    await new Promise((resolve) => setTimeout(resolve, 50));
  return { address, stop: () => (server.kill('SIGTERM'), over) };
}

await main(async () => {
  const { what, given } = givenOptions();
  installPackages(root);
  await buildApp(root);
  const cluster = new Cluster(root, `load-${process.pid}`);
  const servers = [];
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    if (what === 'plans')
      return run(process.execPath, ['--import', 'tsx', 'scripts/load/plans.ts'], {
        cwd: root,
        env: { DATABASE_URL: database },
        quiet: false,
      });
    const app = serveApp(root, { database, port: await freePort(), stderr: 'inherit' });
    servers.push(app);
    await app.ready;
    if (what === 'growth') {
      const { measureGrowth } = await import('./load/growth.mjs');
      return await measureGrowth({ app, database });
    }
    const bare = await serveBare(database, await freePort());
    servers.push(bare);
    const { measureLoad, measureOne } = await import('./load/measure.mjs');
    if (Object.keys(given).some((name) => name !== 'rounds' && name !== 'seconds'))
      await measureOne({ app, bare }, given);
    else await measureLoad({ app, bare }, given);
  } finally {
    for (const server of servers) await server.stop();
    cluster.remove();
  }
});
