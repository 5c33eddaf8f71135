import type { Queryable } from '../../database';

/** Minutes for which a failure counts. */
const MINUTES = 15;

/** How often signing in with an address has failed lately. */
export async function countFailures(sql: Queryable, emailHash: Buffer): Promise<number> {
  const [row] = await sql<{ failures: number }[]>`select count(*)::int as failures from failed_sign_in
    where email_hash = ${emailHash} and at > now() - make_interval(mins => ${MINUTES})`;
  return row!.failures;
}

/** Remembers a failure, and forgets old ones. */
export async function noteFailure(sql: Queryable, emailHash: Buffer): Promise<void> {
  await sql`delete from failed_sign_in where at < now() - make_interval(mins => ${MINUTES})`;
  await sql`insert into failed_sign_in (email_hash) values (${emailHash})`;
}
