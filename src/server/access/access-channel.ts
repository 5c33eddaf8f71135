import type { Queryable } from '../database';

/** The channel on which it is told that somebody may do less or more than before: whoever is being served is looked at again. */
export const ACCESS_CHANGE_CHANNEL = 'access_change';

/** Tells every process, once the transaction is committed. */
export async function tellAccessChanged(sql: Queryable): Promise<void> {
  await sql`select pg_notify(${ACCESS_CHANGE_CHANNEL}, '')`;
}
