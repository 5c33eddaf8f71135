import type { OwnSession } from '../../../protocol/own-session';
import type { Queryable } from '../../database';

/** The sessions of a person, the one that was used last first. */
export async function readSessions(sql: Queryable, person: string, own: Buffer): Promise<OwnSession[]> {
  const rows = await sql<{ id: string; client: string; agent: string; created_at: Date; used_at: Date; is_own: boolean }[]>`
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
