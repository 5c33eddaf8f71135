import type { Queryable } from '../../database';

export interface NewSession {
  readonly tokenHash: Buffer;
  readonly person: string;
  readonly days: number;
  /** The address that it was begun from, and what the browser calls itself. */
  readonly client: string;
  readonly agent: string;
}

/** Keeps a session, and drops those that are over. */
export async function insertSession(sql: Queryable, { tokenHash, person, days, client, agent }: NewSession): Promise<void> {
  await sql`delete from person_session where ends_at < now()`;
  await sql`insert into person_session (token_hash, person_id, client, agent, ends_at)
    values (${tokenHash}, ${person}, ${client}, ${agent}, now() + make_interval(days => ${days}))`;
}
