import postgres from 'postgres';

export type LinkedConnection = postgres.Sql;

interface LinkOptions {
  /** Connections at most, and how long a statement may take. */
  readonly max?: number;
  readonly statementMs?: number;
  /** Seconds after which a connection that is not used is ended. */
  readonly idleS?: number;
}

/** Connects to the database of a linked table. Nothing can be written over it. The caller ends it. */
export function connectLinked(
  url: string,
  { max = 2, statementMs = 600_000, idleS }: LinkOptions = {},
): LinkedConnection {
  return postgres(url, {
    max,
    // Statements of rules are seldom the same for long, and poolers do not keep them.
    prepare: false,
    onnotice: () => {},
    connect_timeout: 10,
    ...(idleS === undefined ? {} : { idle_timeout: idleS }),
    connection: {
      application_name: 'auxesis',
      default_transaction_read_only: true,
      statement_timeout: statementMs,
      // Counts of groups and orders of millions of rows stay in memory.
      work_mem: '64MB',
    },
  });
}
