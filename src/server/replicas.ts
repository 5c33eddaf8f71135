import { setTimeout as pause } from 'node:timers/promises';
import { connect, database, LONG, type Sql } from './database';
import { processWide } from './process-wide';
import { settings } from './settings';
import { isUnavailable } from './unavailable';
import { within } from './within';

/** How long the database may take to say how far it is. */
const ASK_MS = 1000;
/** How long a replica is waited for, and how long it is left alone after it was late or did not answer. */
const LATE_MS = 250;
const REST_MS = 2000;
const FIRST_PAUSE_MS = 2;

interface Replica {
  readonly sql: Sql;
  restsUntil: number;
}

/**
 * Streaming replicas of the database, for reading what is much. Nothing that is read there is older than what was
 * durable when it was asked for: a replica is used once it has replayed the log up to where the database was then
 * (PostgreSQL's manual, 9.27, on positions in the write-ahead log).
 */
export class Replicas {
  private readonly replicas: readonly Replica[];
  private next = 0;
  /** Up to where the database was when it was asked last: as far as anybody here can have seen. */
  private reached: string | undefined;

  constructor(
    private readonly sql: Sql,
    replicas: readonly Sql[],
  ) {
    this.replicas = replicas.map((replica) => ({ sql: replica, restsUntil: 0 }));
  }

  /** Reads from a replica that is not behind; where there is none, or it fails, from `otherwise`. */
  async read<T>(otherwise: Sql, work: (sql: Sql) => Promise<T>): Promise<T> {
    const replica = await this.choose();
    if (!replica) return work(otherwise);
    try {
      return await work(replica.sql);
    } catch (error) {
      if (!isUnavailable(error)) throw error;
      rest(replica);
      return work(otherwise);
    }
  }

  private async choose(): Promise<Replica | undefined> {
    const awake = this.replicas.filter(({ restsUntil }) => restsUntil < performance.now());
    if (awake.length === 0) return undefined;
    const position = await this.position();
    if (position === undefined) return undefined;
    const first = this.next++;
    for (let at = 0; at < awake.length; at++) {
      const replica = awake[(first + at) % awake.length]!;
      if (await hasReached(replica.sql, position)) return replica;
      rest(replica);
    }
    return undefined;
  }

  /** Up to where the database is; while it cannot be asked, as after its fall, up to where it was. */
  private async position(): Promise<string | undefined> {
    const asked = this.sql<{ position: string }[]>`select pg_current_wal_flush_lsn()::text as position`;
    const found = await within(asked, ASK_MS);
    return (this.reached = found?.[0]?.position ?? this.reached);
  }
}

/** Whether a replica has replayed the log up to a position, or does before long. One that was promoted knows all. */
async function hasReached(sql: Sql, position: string): Promise<boolean> {
  const end = performance.now() + LATE_MS;
  for (let waitMs = FIRST_PAUSE_MS; ; waitMs *= 2) {
    const found = await within(
      sql<{ is_there: boolean }[]>`
        select not pg_is_in_recovery() or pg_last_wal_replay_lsn() >= ${position}::pg_lsn as is_there`,
      LATE_MS,
    );
    if (found?.[0]?.is_there) return true;
    if (!found || performance.now() + waitMs > end) return false;
    await pause(waitMs);
  }
}

const rest = (replica: Replica): void => void (replica.restsUntil = performance.now() + REST_MS);

const replicas = (): Replicas =>
  processWide(
    'replicas',
    () =>
      new Replicas(
        database(),
        settings().databaseReadUrls.map((url) => connect(url, LONG)),
      ),
  );

/**
 * Reads what is much: from a replica where there are some, else by the connections that are given. Never older than what
 * was durable before.
 */
export const readMuch = <T>(otherwise: Sql, work: (sql: Sql) => Promise<T>): Promise<T> =>
  replicas().read(otherwise, work);
