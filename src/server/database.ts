import postgres from 'postgres';
import { processWide } from './process-wide';
import { settings } from './settings';

export type Sql = postgres.Sql;
export type Transaction = postgres.TransactionSql;
/** A pool or a transaction. */
export type Queryable = Sql | Transaction;

/** The process's pool of connections to the database that DATABASE_URL names, maybe through a pooler. */
export const database = (): Sql =>
  processWide('database', () =>
    connect(settings().databaseUrl, { isPooled: settings().databaseDirectUrl !== undefined }),
  );

/**
 * The process's connections for long work, such as reading or bringing in a whole sheet: so that it never takes those
 * that quick questions need.
 */
export const longWork = (): Sql => processWide('long-work', () => connect(directUrl(), LONG));

/** Connections that last, as who waits for notices needs one. */
export const lasting = (): Sql => processWide('lasting', () => connect(directUrl(), { max: 1 }));

/** The database past a pooler. */
const directUrl = (): string => settings().databaseDirectUrl ?? settings().databaseUrl;

interface PoolOptions {
  /** Connections at most. */
  readonly max?: number;
  /** How long a statement may take. */
  readonly statementMs?: number;
  /** How long a transaction may wait for the app. */
  readonly idleMs?: number;
  /**
   * Whether a pooler lends connections for a transaction at a time. Then statements are not prepared for the next time,
   * and nothing is set that outlasts a transaction: the pooler sets the limits of time.
   */
  readonly isPooled?: boolean;
}

/** For long work. */
export const LONG: PoolOptions = { max: 4, statementMs: 600_000 };

/** A pool of its own, for scripts and tests; the caller ends it. */
export function connect(
  url: string,
  { max = 8, statementMs = 30_000, idleMs = 60_000, isPooled = false }: PoolOptions = {},
): Sql {
  return postgres(url, {
    max,
    prepare: !isPooled,
    // Before version 1.21, PgBouncer may give the second of two statements that are sent at once to another connection.
    ...(isPooled ? { max_pipeline: 0 } : {}),
    onnotice: () => {},
    connect_timeout: 10,
    // A database that is there again is used again within a second.
    backoff: (failures) => Math.min(1, 0.01 * 2 ** failures),
    connection: {
      application_name: 'auxesis',
      // The database itself ends hanging queries, and frees their locks.
      ...(isPooled ? {} : { statement_timeout: statementMs, idle_in_transaction_session_timeout: idleMs }),
    },
  });
}
