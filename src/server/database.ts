import postgres from 'postgres';
import { processWide } from './process-wide';
import { settings } from './settings';

export type Sql = postgres.Sql;
export type Transaction = postgres.TransactionSql;
/** A pool or a transaction. */
export type Queryable = Sql | Transaction;

/** The process's pool of connections to the database that DATABASE_URL names. */
export function database(): Sql {
  return processWide('database', () => connect(settings().databaseUrl));
}

/**
 * The process's connections for long work, such as reading or bringing in a whole sheet: so that it never takes those
 * that quick questions need.
 */
export const longWork = (): Sql =>
  processWide('long-work', () => connect(settings().databaseUrl, { max: 4, statementMs: 600_000 }));

interface PoolOptions {
  /** Connections at most. */
  readonly max?: number;
  /** How long a statement may take. */
  readonly statementMs?: number;
  /** How long a transaction may wait for the app. */
  readonly idleMs?: number;
}

/** A pool of its own, for scripts and tests; the caller ends it. */
export function connect(url: string, { max = 8, statementMs = 30_000, idleMs = 60_000 }: PoolOptions = {}): Sql {
  return postgres(url, {
    max,
    onnotice: () => {},
    connect_timeout: 10,
    // The database itself ends hanging queries, and frees their locks.
    connection: {
      application_name: 'auxesis',
      statement_timeout: statementMs,
      idle_in_transaction_session_timeout: idleMs,
    },
  });
}
