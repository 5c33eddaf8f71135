import { Agent } from 'node:http';
import { dirname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { makeSheets } from '../load/sheets.mjs';
import { post } from '../load/writers.mjs';
import { Cluster, freePort } from '../postgres.mjs';
import { main, Trouble } from '../run.mjs';
import { Traffic } from '../scale/traffic.mjs';
import { prepareDatabase, serveApp } from '../serve-app.mjs';
import { heapOf, slopeOf, usageOf } from './usage.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

const SHEETS = 6;
const WRITERS = 8;
const READERS = 24;
/** How often memory is looked at, and into how many lines of the curve a run goes. */
const LOOK_MS = 1000;
const LINES = 24;
/** Memory may grow by so many MB an hour once the first third is over: what a look takes to and fro. */
const MOST_GROWTH = 24;

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
  }
  agent.destroy();
}

/** Looks at memory once a second, and prints the curve: in each line the least of its time, when garbage was gone. */
async function watch({ app, admin, minutes }) {
  const { asked } = await import('../scale/databases.mjs');
  console.log('| minutes | heap, MB | server, MB | workers, MB | files | database, MB |');
  console.log('| --- | --- | --- | --- | --- | --- |');
  const points = { heap: [], server: [], workers: [] };
  const [began, each] = [performance.now(), (minutes * 60_000) / LINES];
  for (let line = 1; line <= LINES; line++) {
    const looks = [];
    while (performance.now() < began + line * each) {
      looks.push({ heap: await heapOf(app.address), ...usageOf(app.pid) });
      await pause(LOOK_MS);
    }
    const least = (name) => Math.min(...looks.map((look) => look[name]));
    const [{ size }] = await asked(admin, (sql) => sql`select pg_database_size(current_database()) / 1e6 as size`);
    const at = (line * each) / 60_000;
    for (const name of Object.keys(points)) points[name].push([at / 60, least(name)]);
    const cells = [at.toFixed(1), ...['heap', 'server', 'workers', 'files'].map((name) => least(name).toFixed(0))];
    console.log(`| ${cells.join(' | ')} | ${Number(size).toFixed(0)} |`);
  }
  return points;
}

await main(async () => {
  const { values } = parseArgs({ options: { minutes: { type: 'string', default: '60' } } });
  const minutes = Number(values.minutes);
  if (!(minutes > 0)) throw new Trouble('--minutes takes a number above 0.');
  const cluster = new Cluster(root, `soak-${process.pid}`);
  let app;
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    app = serveApp(root, { database, port: await freePort(), stderr: 'inherit' });
    await app.ready;
    const targets = await makeSheets(app.address, SHEETS);
    const traffic = new Traffic(targets);
    traffic.start({ writers: WRITERS, readers: READERS });
    let isOver = false;
    const passing = comeAndGo(app.address, { headers: targets[0].headers, isOver: () => isOver });
    const points = await watch({ app, admin: cluster.adminUrl, minutes });
    isOver = true;
    await passing;
    await traffic.stop();
    const slopes = Object.entries(points).map(([name, all]) => [name, slopeOf(all.slice(LINES / 3))]);
    console.log(
      `\n${traffic.acknowledged.size} changes. After the first third memory grew by, in MB an hour: ${slopes.map(([name, slope]) => `${name} ${slope.toFixed(1)}`).join(', ')}.`,
    );
    const grown = slopes.filter(([, slope]) => slope > MOST_GROWTH);
    if (grown.length) throw new Trouble(`It goes on growing: ${grown.map(([name]) => name).join(', ')}.`);
  } finally {
    await app?.stop();
    cluster.remove();
  }
});
