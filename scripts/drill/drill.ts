// npm run drill: plays faults against a throw-away instance; prints for each what was lost and what a person saw.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { connect as connectDatabase } from '../../src/server/database';
import { migrate } from '../../src/server/migrate';
import { Cluster } from '../postgres.mjs';
import { fuzzAll } from './fuzz';
import { measureHostile } from './hostile';
import { OlderVersion } from './older-version';
import { root, runDrill, tally, wants, type Stage } from './run-drill';

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
async function killAtLock(
  { instance, sheet }: Stage,
  lock: (sql: postgres.TransactionSql, sheet: string) => Promise<unknown>,
): Promise<void> {
  const sql = postgres(instance.admin, { max: 2, onnotice: () => {} });
  try {
    await sql.begin(async (tx) => {
      await lock(tx, sheet);
      for (let tries = 0; tries < 200; tries++) {
        const [waits] =
          await sql`select 1 from pg_stat_activity where wait_event_type = 'Lock' and datname = current_database() limit 1`;
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

console.log(
  '| fault | times | changes acknowledged | lost or doubled | what a person saw |\n| --- | --- | --- | --- | --- |',
);

await runDrill({
  fault: 'app killed while a change waits for the head of its sheet',
  play: (stage) =>
    repeat(3, () => killAtLock(stage, (sql, sheet) => sql`select 1 from sheet where id = ${sheet} for update`)),
  saw: OFFLINE,
});
await runDrill({
  fault: 'app killed while a change is applied to the rows',
  play: (stage) => repeat(3, () => killAtLock(stage, (sql) => sql`lock table sheet_row in exclusive mode`)),
  saw: OFFLINE,
});
await runDrill({
  fault: 'app killed while a change is written to the log',
  play: (stage) => repeat(3, () => killAtLock(stage, (sql) => sql`lock table sheet_change in exclusive mode`)),
  saw: OFFLINE,
});
await runDrill({
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
await runDrill({
  fault: 'app killed at any moment',
  seconds: 25,
  play: ({ instance }) =>
    repeat(8, async () => {
      await instance.kill();
      await instance.start();
    }),
  saw: OFFLINE,
});
await runDrill({
  fault: 'database killed in the middle of changes',
  seconds: 25,
  play: ({ instance }) =>
    repeat(4, async () => {
      await instance.killDatabase();
      await instance.startDatabase();
    }),
  saw: OFFLINE,
});
await runDrill({
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
await runDrill({
  fault: 'a worker process killed in the middle',
  seconds: 25,
  async play({ instance, sheet, cookie }) {
    let isOver = false;
    // Somebody reads all the time, so that workers have work.
    const reading = (async () => {
      for (; !isOver; await pause(20)) {
        const answer = await fetch(`${instance.address}/api/sheets/${sheet}/painted?theme=light&as=viewer`, {
          headers: { cookie },
        });
        await answer.arrayBuffer();
        if (!answer.ok) throw new Error(`a reader was answered ${answer.status}`);
      }
    })();
    reading.catch(() => {});
    await pause(4000);
    let killed = 0;
    // One of each kind: a sheet at which the same kind of worker ends again within two minutes is to blame for it.
    for (const kind of ['painter', 'findings']) {
      const pid = readdirSync('/proc').find(
        (at) => /^\d+$/.test(at) && parentOf(at) === instance.app().pid && commandOf(at).includes(kind),
      );
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
await runDrill({
  fault: 'slow network: 400 ms each way',
  restMs: 500,
  play: async ({ between }) => {
    between.delayMs = 400;
    return 1;
  },
  saw: 'changes take a second to be confirmed',
});
await runDrill({
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
    await runDrill({
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
else if (wants(UPDATE))
  process.stderr.write(`${UPDATE}: left out, as there is no history to take an older version from\n`);
await runDrill({
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
await runDrill({
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
const { played, failed } = tally();
if (failed > 0) process.exitCode = 1;
console.log(`\n${played - failed} passed, ${failed} failed`);

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
    await runDrill({
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
        if ((instance.cluster as unknown as { runningPort(): number | undefined }).runningPort() === undefined)
          await instance.startDatabase();
        return 1;
      },
      saw: '"The server cannot keep anything just now", then goes on by itself',
    });
  } finally {
    execFileSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}
