import { type LinkRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { LinkGives, SheetLink } from '../../protocol/sheet-sharing';
import type { Queryable } from '../database';

export interface FoundLink {
  readonly sheet: SheetId;
  readonly sheetName: string;
  readonly id: string;
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
  readonly invites: string | null;
}

/** A link by its token, while it is valid. */
export async function findLink(sql: Queryable, tokenHash: Buffer): Promise<FoundLink | undefined> {
  const [row] = await sql<
    FoundLink[]
  >`select sheet.id as sheet, sheet.name as "sheetName", link.id, role, link.name, gives, invites
    from sheet_link link join sheet on sheet.id = link.sheet_id
    where token_hash = ${tokenHash} and revoked_at is null and (ends_at is null or ends_at > now())`;
  return row;
}

/** Whether a sheet has fillers, by a link or as members. */
export async function hasFillers(sql: Queryable, sheet: SheetId): Promise<boolean> {
  const rows = await sql`
    select from sheet_link where sheet_id = ${sheet} and role = 'filler' and revoked_at is null
    union all select from sheet_member where sheet_id = ${sheet} and role = 'filler' limit 1`;
  return rows.length > 0;
}

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
export async function insertLink(
  sql: Queryable,
  sheet: SheetId,
  { id, tokenHash, role, name, gives, invites, endsAt }: NewLink,
): Promise<void> {
  await sql`insert into sheet_link (sheet_id, id, token_hash, role, name, gives, invites, ends_at)
    values (${sheet}, ${id}, ${tokenHash}, ${role}, ${name}, ${JSON.stringify(gives)}::text::json, ${invites}, ${endsAt})`;
}

type Row = Omit<SheetLink, 'endsAt' | 'usedAt'> & { readonly ends_at: Date | null; readonly used_at: Date | null };

/** The links of a sheet that were not revoked, the newest first, with the visitors that came by them. */
export async function readLinks(sql: Queryable, sheet: SheetId): Promise<SheetLink[]> {
  const rows = await sql<Row[]>`select id, role, name, gives, invites, ends_at, used_at,
      array(select visitor.name from sheet_visitor visitor where visitor.sheet_id = link.sheet_id and visitor.link_id = link.id order by came_at) as visitors
    from sheet_link link where sheet_id = ${sheet} and revoked_at is null order by created_at desc, name, id`;
  return rows.map(({ ends_at, used_at, ...rest }) => ({
    ...rest,
    endsAt: ends_at?.getTime() ?? null,
    usedAt: used_at?.getTime() ?? null,
  }));
}

/** Revokes a link; false where there is none such. */
export async function revokeLink(sql: Queryable, sheet: SheetId, id: string): Promise<boolean> {
  const { count } =
    await sql`update sheet_link set revoked_at = now() where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}

/** Gives a link another end, null for none; false where there is none such. */
export async function endLink(
  sql: Queryable,
  sheet: SheetId,
  { id, endsAt }: { readonly id: string; readonly endsAt: Date | null },
): Promise<boolean> {
  const { count } =
    await sql`update sheet_link set ends_at = ${endsAt} where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}

/** Notes that somebody was there by a link: at most once a minute. */
export async function noteLinkUse(sql: Queryable, sheet: SheetId, id: string): Promise<void> {
  await sql`update sheet_link set used_at = now()
    where sheet_id = ${sheet} and id = ${id} and (used_at is null or used_at < now() - interval '1 minute')`;
}
