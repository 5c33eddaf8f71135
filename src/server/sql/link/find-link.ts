import type { SheetId } from '../../../core/sheet/ids';
import type { LinkGives, LinkRole } from '../../../protocol/sheet-sharing';
import type { Queryable } from '../../database';

export interface FoundLink {
  readonly sheet: SheetId;
  readonly sheetName: string;
  readonly id: string;
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
  readonly invites: string | null;
}

/** A link by its token, as long as it lets anybody in. */
export async function findLink(sql: Queryable, tokenHash: Buffer): Promise<FoundLink | undefined> {
  const [row] = await sql<FoundLink[]>`select sheet.id as sheet, sheet.name as "sheetName", link.id, role, link.name, gives, invites
    from sheet_link link join sheet on sheet.id = link.sheet_id
    where token_hash = ${tokenHash} and revoked_at is null and (ends_at is null or ends_at > now())`;
  return row;
}
