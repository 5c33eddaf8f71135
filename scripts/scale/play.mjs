import { Agent } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { makeSheets } from '../load/sheets.mjs';
import { post } from '../load/writers.mjs';
import { asked } from './databases.mjs';
import { Installation } from './installation.mjs';
import { Traffic } from './traffic.mjs';

const SHEETS = 6;
const WRITERS = 12;
const READERS = 24;
/** How long people are there before anything is measured, and how long each part of a run lasts. */
const WARM_MS = 3000;
const PART_MS = 12_000;
/** Findings are looked at so often. */
const WATCH_MS = 200;

/** Values above 90 are found, so that every sheet has findings all the time. */
async function addRule({ url, headers, sheet }) {
  const agent = new Agent();
  const rule = {
    id: 'high',
    name: 'High',
    on: true,
    settles: false,
    reads: { fields: [sheet.field] },
    when: { kind: 'compare', is: '>', to: 90 },
    paints: 'cell',
    look: { fill: '#ffd9a8' },
  };
  const operations = [{ kind: 'put-rules', rules: [{ id: 'high', key: 'a0', rule }] }];
  const { status, text } = await post(agent, url, { headers, body: { id: 'rule', operations } });
  if (status !== 200) throw new Error(`The rule was answered with ${status}: ${text}`);
}

/** Notes when findings of each sheet were recorded, by their heads. */
class FindingsWatch {
  moved = [];
  isGoing = true;

  constructor(databases) {
    this.over = this.#watch(databases);
  }

  async #watch(databases) {
    const heads = new Map();
    for (; this.isGoing; await pause(WATCH_MS)) {
      const rows = await asked(
        databases.primary.adminUrl,
        (sql) => sql`select sheet_id, sequence from finding_head where sequence > 2`,
      ).catch(() => []);
      for (const { sheet_id: sheet, sequence } of rows) {
        if (heads.get(sheet) !== sequence) this.moved.push({ sheet, at: performance.now() });
        heads.set(sheet, sequence);
      }
    }
  }

  async stop() {
    this.isGoing = false;
    await this.over;
  }
}

const share = (values, part) => values.toSorted((a, b) => a - b)[Math.floor(values.length * part)] ?? NaN;

const isInside = ({ at }, { from, to }) => at >= from && at < to;

/** The longest time in a part in which something did not happen to one of the sheets (ms). */
function longestPause(events, sheets, part) {
  const pauses = sheets.map((sheet) => {
    const times = events.flatMap((event) => (event.sheet === sheet && isInside(event, part) ? event.at : []));
    return Math.max(...[...times, part.to].map((time, at) => time - (times[at - 1] ?? part.from)));
  });
  return Math.max(...pauses);
}

/** How often something happened in a part, how long it took (median, 95 %), and the longest pause. */
function figures(events, sheets, part) {
  const times = events.flatMap((event) => (isInside(event, part) ? event.ms : []));
  return {
    count: times.length,
    half: share(times, 0.5),
    most: share(times, 0.95),
    pause: longestPause(events, sheets, part),
  };
}

let running;

/** Ends what runs. */
export const endAll = async () => running?.end();

/** One run: what was measured in each of its parts, and what became of the acknowledged changes. */
export async function play(root, name) {
  const installation = (running = new Installation(root, name));
  try {
    await installation.start();
    const targets = await makeSheets(installation.address, SHEETS);
    for (const target of targets) await addRule(target);
    const traffic = new Traffic(targets);
    traffic.start({ writers: WRITERS, readers: READERS });
    const findings = new FindingsWatch(installation.databases);
    await pause(WARM_MS);
    const parts = await playParts(installation, { traffic, sheet: targets[0].id });
    await findings.stop();
    await traffic.stop();
    const sheets = targets.map(({ id }) => id);
    return {
      parts: parts.map((part) => ({
        does: part.does,
        answered: figures(traffic.answered, sheets, part),
        seen: figures(traffic.seen, sheets, part),
        opened: figures(traffic.opened, sheets, part),
        findings: longestPause(findings.moved, sheets, part),
      })),
      ...(await checkLog(installation.databases.primary.adminUrl, traffic.acknowledged)),
      disordered: traffic.disordered,
      older: traffic.older,
      behind: traffic.behind,
    };
  } finally {
    await installation.end();
  }
}

/** One fault after the other; when each part began and ended. */
async function playParts(installation, { traffic, sheet }) {
  const parts = [];
  const part = async (does, fault = () => {}) => {
    const from = performance.now();
    await fault();
    await pause(PART_MS);
    await installation.starting;
    parts.push({ does, from, to: performance.now() });
    console.log(`${does}: ${traffic.acknowledged.size} changes acknowledged so far`);
  };
  await part('quiet');
  await part('a process is killed', () => installation.killApp(installation.ports[0]));
  await part('the keeper of a sheet is killed', async () => installation.killApp(await installation.keeperOf(sheet)));
  await part('the primary is killed, a replica promoted', () => installation.databases.killPrimary());
  await part('quiet again');
  return parts;
}

/** What the log has of the acknowledged changes. */
async function checkLog(url, acknowledged) {
  const log = await asked(
    url,
    (sql) => sql`select change_id, sheet_id, sequence::int from sheet_change where change_id like 'scale-%'`,
  );
  const places = new Map();
  for (const { change_id: id, sheet_id: sheet, sequence } of log)
    places.set(id, [...(places.get(id) ?? []), `${sheet} ${sequence}`]);
  let lost = 0;
  for (const [id, { sheet, sequence }] of acknowledged) if (!places.get(id)?.includes(`${sheet} ${sequence}`)) lost++;
  return {
    acknowledged: acknowledged.size,
    lost,
    doubled: [...places.values()].filter((each) => each.length > 1).length,
  };
}
