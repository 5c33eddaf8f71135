// Rules beside their limits (see rules-beside-limits.ts): the two take turns in the same run, and what they match is
// compared.
import { figure, median, ms } from './figures.mjs';
import { compare, firstTime, inTurns, works } from './rules-beside-limits';
import { timed } from './time';

const ROUNDS = 15;

for (const work of works) {
  compare(work);
  const first = firstTime(work);
  const { rule, limit, ratio } = inTurns(work, ROUNDS);
  figure(
    `${work.what}, 50,000 records`,
    ms(rule),
    `typed arrays ${ms(limit)}, row objects ${ms(median([0, 1, 2].map(() => timed(work.plain))))}`,
    `${ratio.toFixed(1)}x the limit (aim ${work.aim}x); the first time ${ms(first)}`,
  );
}
