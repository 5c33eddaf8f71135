// Part of npm test: fails where a rule takes twice as long beside its limit as when ratios.json was committed. Ratios of
// one run are compared, never times: machines differ, and one machine from hour to hour.
import { readFileSync } from 'node:fs';
import { compare, inTurns, works } from './rules-beside-limits';

const ROUNDS = 9;
/** A ratio that is high by chance is lower the next time. */
const TRIES = 4;

const committed = JSON.parse(readFileSync(new URL('ratios.json', import.meta.url), 'utf8')) as Record<string, number>;
for (const work of works) {
  compare(work);
  const before = committed[work.what];
  if (before === undefined) throw new Error(`${work.what}: ratios.json does not say how long it takes.`);
  let ratio = Infinity;
  for (let run = 0; run < TRIES && ratio > 2 * before; run++) ratio = Math.min(ratio, inTurns(work, ROUNDS).ratio);
  const says = `${work.what}: ${ratio.toFixed(1)} times its limit, ${before} when it was committed`;
  console.log(says);
  if (ratio > 2 * before) process.exitCode = 1;
}
