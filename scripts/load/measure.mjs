import { readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';
import { figure, median, ms } from '../bench/figures.mjs';
import { openReaders } from './readers.mjs';
import { bareTargets, makeReaders, makeSheets } from './sheets.mjs';
import { headOf, write } from './writers.mjs';

/** Both servers are measured warm: after some seconds of as many writers. */
const WARM_SECONDS = 3;
const WARMING = 5;
const SECONDS = 4;
const ROUNDS = 3;

const at95 = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? NaN;
const times = (ratio) => `${ratio.toFixed(2)}x`;
const perSecond = (rate) => `${rate.toFixed(0)}/s`;

/** Memory of a process that is in use, in bytes. */
const memoryOf = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) * 1024;

/** What each of the two servers gives under the same writers, in turns. */
async function inTurns({ app, bare }, { rounds, ...load }) {
  const results = { app: [], bare: [] };
  for (let round = 0; round < rounds; round++) {
    results.bare.push(await write(bare, load));
    results.app.push(await write(app, load));
  }
  return results;
}

const ratesOf = (results) => median(results.map((result) => result.perSecond));

/** Changes a second, to those of the bare server. */
async function rates(servers, { writers, sheets, aim, rounds, seconds }) {
  const targets = await makeSheets(servers.app.address, sheets);
  const both = { app: targets, bare: bareTargets(servers.bare.address, targets) };
  for (const each of [both.bare, both.app])
    await write(each, { writers: Math.max(writers, WARMING), seconds: WARM_SECONDS });
  const { app, bare } = await inTurns(both, { rounds, writers, seconds });
  const ratios = app.map((result, round) => result.perSecond / bare[round].perSecond);
  const putOff = app.reduce((sum, result) => sum + result.putOff, 0);
  figure(
    `${writers} ${writers === 1 ? 'writer' : 'writers'}, ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}: changes`,
    times(median(ratios)),
    `${perSecond(ratesOf(app))} to ${perSecond(ratesOf(bare))}; answers within ${ms(at95(app.flatMap(({ answers }) => answers)))} to ${ms(at95(bare.flatMap(({ answers }) => answers)))}${putOff ? `; put off ${putOff}` : ''}`,
    `aim ${aim}x`,
  );
  return { rate: ratesOf(app), targets: both, app };
}

/** How soon readers see changes at a rate, to how soon the bare server answers at that rate. */
async function delays(servers, { targets, readers, rate, seconds, aim }) {
  const callers = await makeReaders(servers.app.address, targets.app[0], readers);
  const before = memoryOf(servers.app.pid);
  const wrote = new Map();
  const seen = [];
  const close = await openReaders(
    `${targets.app[0].url}?after=${await headOf(targets.app[0])}`,
    callers,
    (id) => wrote.has(id) && seen.push(performance.now() - wrote.get(id)),
  );
  await pause(1000);
  const memory = (memoryOf(servers.app.pid) - before) / readers;
  const load = { writers: 20, seconds, rate };
  const bare = await write(targets.bare, load);
  const app = await write(targets.app, { ...load, sent: (id) => wrote.set(id, performance.now()) });
  for (let waits = 0; waits < 100 && seen.length < readers * app.answers.length; waits++) await pause(100);
  close();
  const lost = readers * app.answers.length - seen.length;
  figure(
    `${readers} readers, ${perSecond(rate)}: seen by 95 %`,
    lost ? `${lost} lost` : times(at95(seen) / at95(bare.answers)),
    `${ms(at95(seen))} to an answer of ${ms(at95(bare.answers))}; ${(memory / 1000).toFixed(0)} kB a reader`,
    `aim ${aim}x`,
  );
  await pause(1000);
}

/** All figures. */
export async function measureLoad(servers, { rounds = ROUNDS, seconds = SECONDS }) {
  const one = await rates(servers, { writers: 20, sheets: 1, aim: '1.2', rounds, seconds });
  await rates(servers, { writers: 20, sheets: 20, aim: '1', rounds, seconds });
  await rates(servers, { writers: 1, sheets: 1, aim: '0.8', rounds, seconds });
  await delays(servers, { ...one, readers: 50, rate: one.rate / 2, seconds, aim: '2.5' });
  await delays(servers, { ...one, readers: 1000, rate: one.rate / 10, seconds, aim: '5' });
  const { app } = await rates(servers, { writers: 300, sheets: 1, aim: 'even', rounds: 1, seconds });
  const each = app.flatMap((result) => result.each).toSorted((a, b) => a - b);
  figure(
    'beyond that, 300 writers: the slowest to the middle one',
    times(each[0] / median(each)),
    `${each[0]} to ${median(each)} changes, the quickest ${each.at(-1)}`,
    '',
  );
}

/** Only what was asked for. */
export async function measureOne(servers, given) {
  const { writers = 20, sheets = 1, readers = 0, rate, rounds = ROUNDS, seconds = SECONDS } = given;
  const found = await rates(servers, { writers, sheets, aim: '1', rounds, seconds });
  if (readers) await delays(servers, { ...found, readers, rate: rate ?? found.rate / 2, seconds, aim: '2.5' });
}
