import type { Queryable } from '../../database';

/** Minutes for which guesses count together. */
const MINUTES = 15;

/** Counts a guess and gives how many there were lately, this one included: at once, so that guesses side by side are all counted. */
export async function countGuess(sql: Queryable, key: Buffer): Promise<number> {
  const [row] = await sql<{ count: number }[]>`
    insert into guess (key, count, ends_at) values (${key}, 1, now() + make_interval(mins => ${MINUTES}))
    on conflict (key) do update set
      count = case when guess.ends_at < now() then 1 else guess.count + 1 end,
      ends_at = case when guess.ends_at < now() then excluded.ends_at else guess.ends_at end
    returning count`;
  return row!.count;
}

/** Takes back guesses that were none, and forgets old ones. */
export async function forgetGuess(sql: Queryable, keys: readonly Buffer[]): Promise<void> {
  for (const key of keys) await sql`update guess set count = greatest(0, count - 1) where key = ${key}`;
  await sql`delete from guess where ends_at < now()`;
}
