import postgres from 'postgres';

export type Sql = postgres.Sql;
export type Transaction = postgres.TransactionSql;
/** What a query runs on: the pool or a transaction. */
export type Queryable = Sql | Transaction;

// Route handlers are bundled one by one, so what a process has once must hang on the process.
const shared = globalThis as { auxesisSql?: Sql };

/** The process's pool of connections to the database that DATABASE_URL names. */
export function database(): Sql {
  return (shared.auxesisSql ??= connect(requiredUrl()));
}

/** A pool of its own, for scripts and tests; the caller ends it. */
export function connect(url: string): Sql {
  return postgres(url, { max: 8, onnotice: () => {}, connection: { application_name: 'auxesis' } });
}

function requiredUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start the app with "npm start"');
  return url;
}
