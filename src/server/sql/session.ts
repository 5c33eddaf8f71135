import { itemAt } from '../../core/values/item-at';
import type { OwnSession } from '../../protocol/own-session';
import type { Queryable } from '../database';
import type { Person } from './person';

/** Ends one session; the id of the person whose it was, if any. */
export async function deleteSession(sql: Queryable, tokenHash: Buffer): Promise<string | undefined> {
  const [ended] = await sql<
    { person_id: string }[]
  >`delete from person_session where token_hash = ${tokenHash} returning person_id`;
  return ended?.person_id;
}

/** Ends all sessions of a person. */
export async function deleteSessions(sql: Queryable, person: string): Promise<void> {
  await sql`delete from person_session where person_id = ${person}`;
}

/** Ends one session of a person by its id; false where there is none such. */
export async function deleteOwnSession(sql: Queryable, person: string, id: string): Promise<boolean> {
  const { count } = await sql`delete from person_session where person_id = ${person} and id = ${id}`;
  return count > 0;
}

/** Whether a person has signed in before in the browser that has this token. */
export async function isKnownDevice(sql: Queryable, person: string, tokenHash: Buffer): Promise<boolean> {
  const { count } =
    await sql`update person_device set used_at = now() where token_hash = ${tokenHash} and person_id = ${person}`;
  return count > 0;
}

/** Remembers a browser, and forgets those that were not used for long. */
export async function noteDevice(sql: Queryable, person: string, tokenHash: Buffer): Promise<void> {
  await sql`delete from person_device where used_at < now() - interval '400 days'`;
  await sql`insert into person_device (token_hash, person_id) values (${tokenHash}, ${person}) on conflict (token_hash) do update set person_id = excluded.person_id, used_at = now()`;
}

/** Forgets all browsers of a person. */
export async function forgetDevices(sql: Queryable, person: string): Promise<void> {
  await sql`delete from person_device where person_id = ${person}`;
}

const NOTED_MS = 60_000;

/** The person of a session that is not over; notes that it was used, once a minute. */
export async function findSession(sql: Queryable, tokenHash: Buffer): Promise<Person | undefined> {
  const [row] = await sql<
    (Person & { readonly used_at: Date })[]
  >`select person.id, email, name, region, used_at from person_session
    join person on person.id = person_id where token_hash = ${tokenHash} and ends_at > now()`;
  if (!row) return undefined;
  const { used_at, ...person } = row;
  if (Date.now() - used_at.getTime() > NOTED_MS)
    await sql`update person_session set used_at = now() where token_hash = ${tokenHash}`;
  return person;
}

/** Minutes for which guesses count together. */
const MINUTES = 15;

/**
 * Counts a guess and gives how many there were lately, this one included: at once, so that guesses side by side are all
 * counted.
 */
export async function countGuess(sql: Queryable, key: Buffer): Promise<number> {
  const rows = await sql<{ count: number }[]>`
    insert into guess (key, count, ends_at) values (${key}, 1, now() + make_interval(mins => ${MINUTES}))
    on conflict (key) do update set
      count = case when guess.ends_at < now() then 1 else guess.count + 1 end,
      ends_at = case when guess.ends_at < now() then excluded.ends_at else guess.ends_at end
    returning count`;
  return itemAt(rows, 0).count;
}

/** Removes counted guesses that were none, and forgets old ones. */
export async function forgetGuess(sql: Queryable, keys: readonly Buffer[]): Promise<void> {
  for (const key of keys) await sql`update guess set count = greatest(0, count - 1) where key = ${key}`;
  await sql`delete from guess where ends_at < now()`;
}

export interface NewSession {
  readonly tokenHash: Buffer;
  readonly person: string;
  readonly days: number;
  /** The address that it was begun from, and what the browser calls itself. */
  readonly client: string;
  readonly agent: string;
}

/** Keeps a session, and drops those that are over. */
export async function insertSession(
  sql: Queryable,
  { tokenHash, person, days, client, agent }: NewSession,
): Promise<void> {
  await sql`delete from person_session where ends_at < now()`;
  await sql`insert into person_session (token_hash, person_id, client, agent, ends_at)
    values (${tokenHash}, ${person}, ${client}, ${agent}, now() + make_interval(days => ${days}))`;
}

/** The sessions of a person, the one that was used last first. */
export async function readSessions(sql: Queryable, person: string, own: Buffer): Promise<OwnSession[]> {
  const rows = await sql<
    { id: string; client: string; agent: string; created_at: Date; used_at: Date; is_own: boolean }[]
  >`
    select id, client, agent, created_at, used_at, token_hash = ${own} as is_own from person_session
    where person_id = ${person} and ends_at > now() order by used_at desc, id limit 100`;
  return rows.map(({ id, client, agent, created_at, used_at, is_own }) => ({
    id,
    client,
    agent,
    beganAt: created_at.getTime(),
    usedAt: used_at.getTime(),
    isOwn: is_own,
  }));
}
