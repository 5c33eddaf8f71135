// npm run linked-proof [-- ROWS]: how long a linked table of so many rows takes: its windows, and the count of each of six
// rules, with the memory of the app meanwhile. Beside each, the same question asked of the database as one plain statement.
import { dirname } from 'node:path';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { figure, median, ms } from './bench/figures.mjs';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { makeLinkedTable } from './linked-table.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const TIMES = 3;

/** The rules of the demo's sheet, each with what a person would ask the database instead. */
const PLAIN = {
  low: 'select count(*) from readings where "Dissolved oxygen"::float8 < 6',
  acid: 'select count(*) from readings where "pH"::float8 < 6.8 or "pH"::float8 >= 8.2',
  cloudy:
    'select count(*) from readings where "Turbidity" > (select avg("Turbidity") + 3 * stddev_samp("Turbidity") from readings)',
  highest:
    'select count(*) from readings where "Dissolved oxygen" >= (select min(x) from (select "Dissolved oxygen" as x from readings order by 1 desc limit 100) best)',
  flood: `select count(*) from readings where lower("Flow") = 'flood'`,
  unsaid: 'select count(*) from readings where "Flow" is null',
};

const timed = async (task) => {
  const began = performance.now();
  const answer = await task();
  return { took: performance.now() - began, answer };
};

const often = async (task) => {
  const times = [];
  for (let at = 0; at < TIMES; at++) times.push((await timed(task)).took);
  return median(times);
};

/** Resident memory of a process in megabytes. */
const memoryOf = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

await main(async () => {
  const rows = Number(process.argv[2] ?? 10_000_000);
  installPackages(root);
  const cluster = new Cluster(root, `linked-${process.pid}`);
  let app;
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    await buildApp(root);
    console.log(`Making ${rows.toLocaleString('en')} readings...`);
    const address = await makeLinkedTable(cluster.adminUrl, rows);
    const env = { DATABASE_URL: database, ...cluster.linkSettings };
    const made = JSON.parse(
      run(process.execPath, ['--import', 'tsx', 'scripts/linked-demo-sheet.ts', address, 'json'], {
        cwd: root,
        env,
      }),
    );
    app = serveApp(root, { database, port: await freePort(), settings: cluster.linkSettings });
    await app.ready;
    await measure({ app, address, rows, ...made });
  } finally {
    await app?.stop();
    cluster.remove();
  }
});

async function measure({ app, address, rows, id, rules }) {
  const { default: postgres } = await import('postgres');
  const plain = postgres(address, { max: 1, onnotice: () => {} });
  const signedIn = await fetch(`${app.address}/api/demo`, {
    method: 'POST',
    headers: { origin: app.address, 'content-type': 'application/json' },
    body: '{}',
  });
  const headers = {
    origin: app.address,
    'content-type': 'application/json',
    cookie: signedIn.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0])
      .join('; '),
  };
  const ask = async (path, body) => {
    const answer = await fetch(`${app.address}/api/sheets/${id}/${path}`, {
      headers,
      ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    });
    const bytes = await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`${path}: ${new TextDecoder().decode(bytes)}`);
    return bytes;
  };
  const window = (asked) => ask(`packed?window=${encodeURIComponent(JSON.stringify(asked))}`);
  const rest = memoryOf(app.pid);
  const first = await often(() => plain`select * from readings order by id limit 1001`);
  figure('first window, 1,000 records', ms(await often(() => window({}))), `rows alone ${ms(first)}`, 'under 1 s');
  const middle = Math.floor(rows / 2);
  const far = await often(() => plain`select * from readings where id > ${middle} order by id limit 1001`);
  figure(
    'a window in the middle',
    ms(await often(() => window({ after: [String(middle)] }))),
    `rows alone ${ms(far)}`,
    'the same',
  );
  let most = memoryOf(app.pid);
  for (const rule of rules) {
    const { took, answer } = await timed(() => ask('linked/judge', { rule, window: {} }));
    const { took: alone, answer: counted } = await timed(() => plain.unsafe(PLAIN[rule.id]));
    const { matched } = JSON.parse(new TextDecoder().decode(answer));
    most = Math.max(most, memoryOf(app.pid));
    figure(
      `count of “${rule.name}”: ${matched.toLocaleString('en')}`,
      ms(took),
      `plain statement ${ms(alone)}`,
      Number(counted[0].count) === matched ? 'the same number' : `plain: ${counted[0].count}`,
    );
  }
  figure('memory of the app, the most', `${most.toFixed(0)} MB`, `before ${rest.toFixed(0)} MB`, 'flat');
  await plain.end();
}
