import type { Sql, Transaction } from '../database';
import { ACCESS_CHANGE_CHANNEL, type AccessChange } from './access-channel';
import { knownAccess } from './known-access';

interface AccessChanged<T> {
  /** Null where it has not changed after all. */
  readonly changed: AccessChange | null;
  readonly value: T;
}

/** Changes access in a transaction. Every process hears of it on commit, this one before it goes on. */
export async function changeAccess<T>(sql: Sql, work: (tx: Transaction) => Promise<AccessChanged<T>>): Promise<T> {
  const { changed, value } = await sql.begin(async (tx) => {
    const done = await work(tx);
    if (done.changed) await tx`select pg_notify(${ACCESS_CHANGE_CHANNEL}, ${JSON.stringify(done.changed)})`;
    return done;
  });
  if (changed) knownAccess().forget(changed);
  return value;
}
