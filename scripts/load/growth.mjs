import { Agent, get } from 'node:http';
import postgres from 'postgres';
import { figure, median, ms } from '../bench/figures.mjs';
import { makeSheets } from './sheets.mjs';
import { post } from './writers.mjs';

const SHEETS = [10, 1000, 100_000];
const CHANGES = [1000, 10_000, 100_000, 1_000_000];
/** Requests of each kind whose median counts, after some to warm up. */
const ASKED = 60;
const WARM = 20;

const fetched = (agent, url, headers) =>
  new Promise((resolve, reject) => {
    get(url, { agent, headers }, (response) => {
      if (response.statusCode !== 200) reject(new Error(`${url} was answered with ${response.statusCode}.`));
      response.on('end', resolve).resume();
    }).on('error', reject);
  });

async function timed(ask) {
  const times = [];
  for (let at = -WARM; at < ASKED; at++) {
    const began = performance.now();
    await ask(at);
    if (at >= 0) times.push(performance.now() - began);
  }
  return median(times);
}

let made = 0;

/** What opening a sheet, a change, and a page of its history take: the newest, and one from the middle. */
async function costs({ id, url, headers, sheet }) {
  const agent = new Agent({ keepAlive: true });
  const at = url.replace(/\/changes$/, '');
  const { text } = await post(agent, url, { headers, body: entry(sheet) });
  const middle = Math.max(2, Math.round(JSON.parse(text).sequence / 2));
  const found = {
    change: await timed(() => post(agent, url, { headers, body: entry(sheet) })),
    opening: await timed(() => fetched(agent, `${at}/packed`, headers)),
    history: await timed(() => fetched(agent, `${at}/history`, headers)),
    'history from the middle': await timed(() => fetched(agent, `${at}/history?before=${middle}`, headers)),
  };
  agent.destroy();
  return { id, ...found };
}

const entry = ({ rows, field }) => ({
  id: `growth-${++made}`,
  operations: [{ kind: 'set-cells', cells: [{ row: rows[made % 10], field, input: String(made) }] }],
});

function print(what, count, found, first) {
  for (const name of ['change', 'opening', 'history', 'history from the middle'])
    figure(
      `${count.toLocaleString('en')} ${what}: ${name}`,
      ms(found[name]),
      `${(found[name] / first[name]).toFixed(1)}x of that with the fewest`,
      'flat',
    );
}

/** Fills the database up to so many sheets of 20 rows, each with a log of 20 changes. */
export async function fillSheets(sql, count) {
  await sql`insert into sheet (id, name, head) select 'full' || n, 'Full ' || n, 20 from generate_series(1, ${count}) n on conflict do nothing`;
  await sql`insert into finding_head (sheet_id, sequence) select 'full' || n, 20 from generate_series(1, ${count}) n on conflict do nothing`;
  await sql`insert into sheet_field (sheet_id, id, key, width_px) select 'full' || n, 'f' || f, 'a' || f, 150 from generate_series(1, ${count}) n, generate_series(1, 3) f on conflict do nothing`;
  await sql`insert into sheet_row (sheet_id, id, key, role, cells) select 'full' || n, 'r' || r, 'a' || r, 'record', '{"f1": "5"}' from generate_series(1, ${count}) n, generate_series(1, 20) r on conflict do nothing`;
  await fillLog(sql, { sheets: count, from: 1, to: 20 });
  await sql`analyze`;
}

/** Adds changes to the logs of the sheets that were filled, or to that of one. */
async function fillLog(sql, { sheets, sheet, from, to }) {
  const operations = JSON.stringify([{ kind: 'set-cells', cells: [{ row: 'load1', field: 'load', input: '5' }] }]);
  const ids = sheet
    ? sql`select ${sheet}::text as id`
    : sql`select 'full' || n as id from generate_series(1, ${sheets}) n`;
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, operations, inverse)
    select ids.id, at, 'filled ' || at, 'person demo-owner', ${operations}::text::json, ${operations}::text::json
    from (${ids}) ids, generate_series(${from}::int, ${to}::int) at on conflict do nothing`;
  if (sheet) {
    await sql`update sheet set head = ${to} where id = ${sheet}`;
    await sql`update finding_head set sequence = ${to} where sheet_id = ${sheet}`;
  }
}

/** How what people do grows with the sheets in the database, and with the changes in a log. */
export async function measureGrowth({ app, database }) {
  const sql = postgres(database, { max: 1, onnotice: () => {} });
  try {
    let first;
    for (const count of SHEETS) {
      await fillSheets(sql, count);
      const [target] = await makeSheets(app.address, 1);
      const found = await costs(target);
      print('sheets', count, found, (first ??= found));
    }
    const [target] = await makeSheets(app.address, 1);
    let filled = 1;
    first = undefined;
    for (const count of CHANGES) {
      await fillLog(sql, { sheet: target.id, from: filled + 1, to: count });
      await sql`analyze`;
      const found = await costs(target);
      filled = count;
      print('changes in a log', count, found, (first ??= found));
    }
  } finally {
    await sql.end();
  }
}
