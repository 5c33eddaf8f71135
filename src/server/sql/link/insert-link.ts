import type { SheetId } from '../../../core/sheet/ids';
import type { LinkGives, LinkRole } from '../../../protocol/sheet-sharing';
import type { Queryable } from '../../database';

export interface NewLink {
  readonly id: string;
  readonly tokenHash: Buffer;
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
  readonly invites: string | null;
  readonly endsAt: Date | null;
}

/** Keeps a link. */
export async function insertLink(sql: Queryable, sheet: SheetId, { id, tokenHash, role, name, gives, invites, endsAt }: NewLink): Promise<void> {
  await sql`insert into sheet_link (sheet_id, id, token_hash, role, name, gives, invites, ends_at)
    values (${sheet}, ${id}, ${tokenHash}, ${role}, ${name}, ${JSON.stringify(gives)}::text::json, ${invites}, ${endsAt})`;
}
