import { Agent } from 'node:http';
import { dirname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { median } from '../bench/figures.mjs';
import { makeSheets } from '../load/sheets.mjs';
import { post } from '../load/writers.mjs';
import { Cluster, freePort } from '../postgres.mjs';
import { main, Trouble } from '../run.mjs';
import { asked } from '../scale/databases.mjs';
import { Traffic } from '../scale/traffic.mjs';
import { prepareDatabase, serveApp } from '../serve-app.mjs';
import { usageOf } from './usage.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

const SHEETS = 6;
const WRITERS = 8;
const READERS = 24;
const REST_MS = 50;
const COMING_MS = 300;
/** How often memory is looked at in a run. */
const LINES = 24;
/** How much more may be in use in the last third of a run than in the second: as much as it goes to and fro. */
const MOST_GROWTH = { heap: 1.05, server: 1.1, workers: 1.1 };

/** Somebody who makes a sheet, looks at all there is of it, and removes it, over and over. */
async function comeAndGo(address, { headers, isOver }) {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  for (let round = 0; !isOver(); round++) {
    const made = await post(agent, `${address}/api/sheets`, { headers, body: { name: `Passing ${round}` } });
    const sheet = `${address}/api/sheets/${JSON.parse(made.text).id}`;
    for (const path of ['packed', 'history', 'findings', 'painted?theme=light&as=viewer'])
      await (await fetch(`${sheet}/${path}`, { headers })).arrayBuffer();
    const stream = await fetch(`${sheet}/changes?after=0`, { headers });
    await stream.body.cancel();
    await (await fetch(sheet, { method: 'DELETE', headers })).text();
    await pause(COMING_MS);
  }
  agent.destroy();
}

/** Looks at memory so many times, evenly, and prints the curve. Gives each figure at each look. */
async function watch({ app, admin, minutes }) {
  console.log('| minutes | heap, MB | server, MB | workers, MB | files | database, MB |');
  console.log('| --- | --- | --- | --- | --- | --- |');
  const seen = { heap: [], server: [], workers: [] };
  const [began, each] = [performance.now(), (minutes * 60_000) / LINES];
  for (let line = 1; line <= LINES; line++) {
    await pause(Math.max(0, began + line * each - performance.now()));
    const usage = await usageOf(app);
    const [{ size }] = await asked(admin, (sql) => sql`select pg_database_size(current_database()) / 1e6 as size`);
    const at = (line * each) / 60_000;
    for (const name of Object.keys(seen)) seen[name].push(usage[name]);
    const cells = [at.toFixed(1), ...['heap', 'server', 'workers', 'files'].map((name) => usage[name].toFixed(0))];
    console.log(`| ${cells.join(' | ')} | ${Number(size).toFixed(0)} |`);
  }
  return seen;
}

await main(async () => {
  const { values } = parseArgs({ options: { minutes: { type: 'string', default: '60' } } });
  const minutes = Number(values.minutes);
  if (!(minutes > 0)) throw new Trouble('--minutes takes a number above 0.');
  const cluster = new Cluster(root, `soak-${process.pid}`);
  let app;
  const end = async () => {
    await app?.stop();
    cluster.remove();
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end().then(() => process.exit(1)));
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    app = serveApp(root, {
      database,
      port: await freePort(),
      stderr: 'inherit',
      settings: { NODE_OPTIONS: `--import=${join(root, 'scripts/soak/collect.mjs')}` },
    });
    await app.ready;
    const targets = await makeSheets(app.address, SHEETS);
    const traffic = new Traffic(targets);
    traffic.start({ writers: WRITERS, readers: READERS, restMs: REST_MS });
    let isOver = false;
    const passing = comeAndGo(app.address, { headers: targets[0].headers, isOver: () => isOver });
    const seen = await watch({ app, admin: cluster.adminUrl, minutes });
    isOver = true;
    await passing;
    await traffic.stop();
    const growth = Object.entries(seen).map(([name, all]) => {
      const third = (at) => median(all.slice((at * LINES) / 3, ((at + 1) * LINES) / 3));
      return [name, third(2) / third(1)];
    });
    console.log(
      `\n${traffic.acknowledged.size} changes. The last third beside the second: ${growth.map(([name, ratio]) => `${name} ${ratio.toFixed(2)}`).join(', ')}.`,
    );
    const grown = growth.filter(([name, ratio]) => ratio > MOST_GROWTH[name]);
    if (grown.length) throw new Trouble(`It goes on growing: ${grown.map(([name]) => name).join(', ')}.`);
  } finally {
    await end();
  }
});
