// npm run drill: plays faults against a throw-away instance, and tells of each what was lost and what a person saw.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import postgres from 'postgres';
import { connect as connectDatabase } from '../../src/server/database';
import { migrate } from '../../src/server/migrate';
import type { Engine as ThisEngine } from '../../src/engine/engine';
import { Cluster } from '../postgres.mjs';
import { Between } from './between';
import { fuzzAll } from './fuzz';
import { measureHostile } from './hostile';
import { Instance } from './instance';
import { OlderVersion } from './older-version';
import { connectPages, DrillPage, type Acknowledged } from './page';

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const wanted = process.argv.slice(2);

interface Line {
  readonly fault: string;
  readonly times: number;
  readonly kept: number;
  readonly lost: number;
  readonly saw: string;
  readonly isGood: boolean;
}
const lines: Line[] = [];

/** One fault: some pages write while it happens; afterwards everything acknowledged must be there once, and all pages must show the same. */
interface Drill {
  readonly fault: string;
  readonly pages?: number;
  readonly seconds?: number;
  /** Rest between two entries of a page, in milliseconds. */
  readonly restMs?: number;
  readonly preload?: string;
  /** Stands for the folder of the clone in the place of the cluster. */
  readonly place?: string;
  /** The version whose pages and process are there at the beginning, where it is not this one. */
  readonly older?: OlderVersion;
  /** Does the fault while pages write. Returns how often. */
  play(at: Stage): Promise<number>;
  readonly saw: string;
}

interface Stage {
  readonly instance: Instance;
  readonly between: Between;
  readonly sheet: string;
  readonly cookie: string;
}

const wants = (fault: string): boolean => wanted.length === 0 || wanted.some((word) => fault.includes(word));

async function run({ fault, pages = 6, seconds = 15, restMs = 20, preload, place = root, older, play, saw }: Drill): Promise<void> {
  if (!wants(fault)) return;
  process.stderr.write(`${fault}...\n`);
  const instance = await Instance.make({ root, place, name: `drill-${process.pid}` });
  const between = new Between(() => instance.address);
  const acknowledged: Acknowledged = new Map();
  let disconnect = (): void => {};
  const open: DrillPage[] = [];
  try {
    if (older) instance.use(await older.start(instance.database));
    else {
      instance.prepare();
      await instance.start(preload ? { preload: join(root, preload) } : {});
    }
    const { Engine } = older ? ((await import(join(older.folder, 'src/engine/engine.ts'))) as { readonly Engine: typeof ThisEngine }) : {};
    const cookie = await instance.signIn();
    const sheet = await instance.makeSheet(cookie);
    disconnect = connectPages({ address: await between.open(), cookie, acknowledged, statuses: new Map() });
    for (let at = 0; at < pages; at++) {
      const page = new DrillPage(Engine);
      await page.open(sheet);
      open.push(page);
    }
    let isWriting = true;
    const writing = Promise.all(
      open.map(async (page, who) => {
        for (let at = 0; isWriting; at++) {
          if (at % 9 === 8) await page.undo().catch(() => {});
          else await page.enter(1 + (who % 4), 1 + ((at * 7 + who) % 30), `${who} wrote ${at}`);
          await pause(restMs + Math.random() * 3 * restMs);
        }
      }),
    );
    const playing = play({ instance, between, sheet, cookie });
    await Promise.all([pause(seconds * 1000), playing]);
    isWriting = false;
    await writing;
    const times = await playing;
    await until(() => open.every((page) => page.isSettled), 240_000, 'the pages have not been answered');
    await until(
      () => new Set(open.map(({ shown }) => shown)).size === 1,
      // All pages share this process: they may be hundreds of changes behind one another.
      240_000,
      () => `the pages do not show the same: ${differenceOf(open)}`,
    );
    const late = new DrillPage();
    open.push(late);
    await late.open(sheet);
    await until(() => late.shown === open[0]!.shown, 20_000, 'who comes now sees something else than the log gives');
    const { lost, doubled, gaps } = await instance.check(sheet, acknowledged);
    const refusals = open.flatMap((page) => page.refusals);
    const { endedByThemselves: ended } = instance;
    const seen = ended ? `${saw} (the app ended by itself ${ended === 1 ? 'once' : `${ended} times`}, and was started again)` : saw;
    note({
      fault,
      times,
      kept: acknowledged.size,
      lost: lost + doubled + gaps,
      saw: refusals.length ? `${seen}; refused: ${refusals[0]}` : seen,
      isGood: lost + doubled + gaps + refusals.length === 0,
    });
  } catch (error) {
    note({ fault, times: 0, kept: acknowledged.size, lost: 0, saw: `FAILED: ${(error as Error).message}`, isGood: false });
  } finally {
    for (const page of open) page.close();
    disconnect();
    between.close();
    await instance.end();
  }
}

function note(line: Line): void {
  lines.push(line);
  console.log(`| ${line.fault} | ${line.times} | ${line.kept} | ${line.lost} | ${line.saw} |`);
}

async function until(holds: () => boolean, patienceMs: number, otherwise: string | (() => string)): Promise<void> {
  for (const end = Date.now() + patienceMs; !holds(); await pause(100))
    if (Date.now() > end) throw new Error(typeof otherwise === 'string' ? otherwise : otherwise());
}

/** How many pages show what, and where two of them differ first. */
function differenceOf(pages: readonly DrillPage[]): string {
  const groups = [...new Set(pages.map(({ shown }) => shown))].map((shown) => pages.filter((page) => page.shown === shown));
  const [one, other] = groups.map(([page]) => page!.shown);
  const at = [...(one ?? '')].findIndex((letter, place) => letter !== other?.[place]);
  const near = (shown = ''): string => shown.slice(Math.max(0, at - 30), at + 30);
  return `${groups.map(({ length }) => length).join(' and ')} pages, ${near(one)} against ${near(other)}`;
}

/** The parent of a process; undefined where it is gone. */
function parentOf(pid: string): number | undefined {
  try {
    return Number(/^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);
  } catch {
    return undefined;
  }
}

function commandOf(pid: string): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    return '';
  }
}

const UPDATE = 'an update: the version before the newest schema, then this one beside it, then this one alone';
const OFFLINE = '"Offline", changes wait, then go on by themselves';

/** Holds a lock until a change waits for it, so that the app is known to be at that step; then ends the app there. */
async function killAtLock({ instance, sheet }: Stage, lock: (sql: postgres.TransactionSql, sheet: string) => Promise<unknown>): Promise<void> {
  const sql = postgres(instance.admin, { max: 2, onnotice: () => {} });
  try {
    await sql.begin(async (tx) => {
      await lock(tx, sheet);
      for (let tries = 0; tries < 200; tries++) {
        const [waits] = await sql`select 1 from pg_stat_activity where wait_event_type = 'Lock' and datname = current_database() limit 1`;
        if (waits) break;
        await pause(20);
      }
      await instance.kill();
    });
  } finally {
    await sql.end();
  }
  await instance.start();
}

const repeat = async (times: number, one: () => Promise<void>): Promise<number> => {
  for (let at = 0; at < times; at++) {
    await pause(800 + Math.random() * 800);
    await one();
  }
  return times;
};

console.log('| fault | times | changes acknowledged | lost or doubled | what a person saw |\n| --- | --- | --- | --- | --- |');

await run({
  fault: 'app killed while a change waits for the head of its sheet',
  play: (stage) => repeat(3, () => killAtLock(stage, (sql, sheet) => sql`select 1 from sheet where id = ${sheet} for update`)),
  saw: OFFLINE,
});
await run({
  fault: 'app killed while a change is applied to the rows',
  play: (stage) => repeat(3, () => killAtLock(stage, (sql) => sql`lock table sheet_row in exclusive mode`)),
  saw: OFFLINE,
});
await run({
  fault: 'app killed while a change is written to the log',
  play: (stage) => repeat(3, () => killAtLock(stage, (sql) => sql`lock table sheet_change in exclusive mode`)),
  saw: OFFLINE,
});
await run({
  fault: 'app killed once a change is committed, before its answer',
  async play(stage) {
    return repeat(5, async () => {
      const sql = postgres(stage.instance.database, { max: 1, onnotice: () => {} });
      const committed = new Promise<void>((resolve) => void sql.listen('sheet_change', () => resolve()));
      await committed;
      await stage.instance.kill();
      await sql.end();
      await stage.instance.start();
    });
  },
  saw: OFFLINE,
});
await run({
  fault: 'app killed at any moment',
  seconds: 25,
  play: ({ instance }) =>
    repeat(8, async () => {
      await instance.kill();
      await instance.start();
    }),
  saw: OFFLINE,
});
await run({
  fault: 'database killed in the middle of changes',
  seconds: 25,
  play: ({ instance }) =>
    repeat(4, async () => {
      await instance.killDatabase();
      await instance.startDatabase();
    }),
  saw: OFFLINE,
});
await run({
  fault: 'database gone for a minute',
  seconds: 75,
  pages: 6,
  restMs: 40,
  play: async ({ instance }) => {
    await pause(3000);
    await instance.killDatabase();
    await pause(60_000);
    await instance.startDatabase();
    return 1;
  },
  saw: OFFLINE,
});
await run({
  fault: 'a worker process killed in the middle',
  seconds: 25,
  async play({ instance, sheet, cookie }) {
    let isOver = false;
    // Somebody reads all the time, so that workers have work.
    const reading = (async () => {
      for (; !isOver; await pause(20)) {
        const answer = await fetch(`${instance.address}/api/sheets/${sheet}/painted?theme=light&as=viewer`, { headers: { cookie } });
        await answer.arrayBuffer();
        if (!answer.ok) throw new Error(`a reader was answered ${answer.status}`);
      }
    })();
    reading.catch(() => {});
    await pause(4000);
    let killed = 0;
    // One of each kind: a sheet at which the same kind of worker ends again within two minutes is to blame for it.
    for (const kind of ['painter', 'findings']) {
      const pid = readdirSync('/proc').find((at) => /^\d+$/.test(at) && parentOf(at) === instance.app().pid && commandOf(at).includes(kind));
      if (!pid) continue;
      process.kill(Number(pid), 'SIGKILL');
      killed++;
      await pause(4000);
    }
    isOver = true;
    await reading;
    return killed;
  },
  saw: 'nothing: sheets go on in another process',
});
await run({
  fault: 'slow network: 400 ms each way',
  restMs: 500,
  play: async ({ between }) => {
    between.delayMs = 400;
    return 1;
  },
  saw: 'changes take a second to be confirmed',
});
await run({
  fault: 'clock of the server jumps an hour forward and back',
  preload: 'scripts/drill/clock.mjs',
  play: ({ instance }) =>
    repeat(6, async () => {
      instance.app().kill('SIGUSR2');
    }),
  saw: 'nothing, but for times in the history',
});
const older = wants(UPDATE) ? OlderVersion.take(root) : undefined;
if (older)
  try {
    await run({
      fault: UPDATE,
      older,
      seconds: 25,
      play: async ({ instance }) => {
        await pause(3000);
        // As an update goes: the schema first, then a new process, and then the old one ends.
        instance.prepare();
        await pause(3000);
        const port = await instance.start();
        await pause(3000);
        instance.use(port);
        await pause(2000);
        await older.stop();
        return 1;
      },
      saw: 'connects again within a second',
    });
  } finally {
    await older.remove();
  }
else if (wants(UPDATE)) process.stderr.write(`${UPDATE}: left out, as there is no history to take an older version from\n`);
await run({
  fault: 'a migration that fails half way',
  play: async ({ instance }) => {
    const folder = mkdtempSync(join(tmpdir(), 'auxesis-drill-'));
    const from = join(root, 'src/server/sql/migrations');
    for (const name of readdirSync(from)) copyFileSync(join(from, name), join(folder, name));
    writeFileSync(
      join(folder, '9999_bad.sql'),
      'alter table sheet add column half_way text;\ncreate table half_way (id text);\nselect no_such_function();\n',
    );
    const sql = connectDatabase(instance.database, { max: 1 });
    try {
      const failed = await migrate(sql, folder).then(
        () => false,
        () => true,
      );
      const [left] = await sql`select 1 from information_schema.columns where column_name = 'half_way'`;
      if (!failed || left) throw new Error('a part of a migration that failed was kept');
    } finally {
      await sql.end();
      rmSync(folder, { recursive: true });
    }
    return 1;
  },
  saw: 'nothing: the start says which file failed, and the schema is as it was',
});
await run({
  fault: '30 pages with random changes and random cuts for two minutes',
  pages: 30,
  seconds: 120,
  restMs: 200,
  play: async ({ between }) => {
    for (const end = Date.now() + 118_000; Date.now() < end;) {
      await pause(500 + Math.random() * 1500);
      between.cut(0.25);
    }
    return between.cuts;
  },
  saw: OFFLINE,
});
if (wants('disk')) await fullDisk();
if (wants('hostile')) {
  const { text, isGood } = await measureHostile(root);
  console.log(`\n${text}`);
  if (!isGood) process.exitCode = 1;
}
if (wants('fuzz')) {
  const { text, isGood } = await fuzzAll(root);
  console.log(`\n${text}`);
  if (!isGood) process.exitCode = 1;
}
if (lines.some(({ isGood }) => !isGood)) process.exitCode = 1;
const failed = lines.filter(({ isGood }) => !isGood).length;
console.log(`\n${lines.length - failed} passed, ${failed} failed`);

/** The database's disk runs full: as root only, on a small file system of its own. */
async function fullDisk(): Promise<void> {
  const fault = 'disk of the database full';
  if (process.getuid?.() !== 0) return void process.stderr.write(`${fault}: left out, as it needs root\n`);
  // The cluster lies in a folder of its own on the small disk.
  const place = `/drill-${process.pid}`;
  const disk = dirname((new Cluster(place, 'none') as unknown as { folder: string }).folder);
  mkdirSync(disk, { recursive: true });
  execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=220m,mode=755', 'tmpfs', disk]);
  try {
    await run({
      fault,
      place,
      pages: 3,
      seconds: 30,
      play: async ({ instance }) => {
        await pause(3000);
        const data = (instance.cluster as unknown as { data: string }).data;
        const filler = join(data, '..', 'filler');
        try {
          execFileSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=1M', 'count=400'], { stdio: 'ignore' });
        } catch {
          // It ends when the disk is full: that is what it is for.
        }
        await pause(15_000);
        rmSync(filler, { force: true });
        // A database that has stopped over it is started again, as a service would be.
        if ((instance.cluster as unknown as { runningPort(): number | undefined }).runningPort() === undefined) await instance.startDatabase();
        return 1;
      },
      saw: '"The server cannot keep anything just now", then goes on by itself',
    });
  } finally {
    execFileSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}
