import { type LinkRole, type Own } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

export interface Visitor {
  readonly id: string;
  readonly name: string;
  readonly link: string;
  readonly role: LinkRole;
  readonly own: { readonly fields: readonly string[] | null; readonly rows: readonly string[] | null };
  /** When the link ends, milliseconds of the Unix epoch. */
  readonly endsAt: number | null;
}

/** A visitor of a sheet by their token, while the link they came by is valid. */
export async function findVisitor(sql: Queryable, sheet: SheetId, tokenHash: Buffer): Promise<Visitor | undefined> {
  const [row] = await sql<
    {
      id: string;
      name: string;
      link: string;
      role: LinkRole;
      own_fields: string[] | null;
      own_rows: string[] | null;
      ends_at: Date | null;
    }[]
  >`
    select visitor.id, visitor.name, link.id as link, link.role, own_fields, own_rows, link.ends_at
    from sheet_visitor visitor join sheet_link link on link.sheet_id = visitor.sheet_id and link.id = visitor.link_id
    where visitor.sheet_id = ${sheet} and visitor.token_hash = ${tokenHash}
      and link.revoked_at is null and (link.ends_at is null or link.ends_at > now())`;
  return (
    row && {
      id: row.id,
      name: row.name,
      link: row.link,
      role: row.role,
      own: { fields: row.own_fields, rows: row.own_rows },
      endsAt: row.ends_at?.getTime() ?? null,
    }
  );
}

export interface NewVisitor {
  readonly id: string;
  readonly link: string;
  readonly tokenHash: Buffer;
  readonly name: string;
  readonly own: Own;
}

/** Stores a visitor who came by a link. */
export async function insertVisitor(
  sql: Queryable,
  sheet: SheetId,
  { id, link, tokenHash, name, own }: NewVisitor,
): Promise<void> {
  await sql`insert into sheet_visitor (sheet_id, id, link_id, token_hash, name, own_fields, own_rows)
    values (${sheet}, ${id}, ${link}, ${tokenHash}, ${name}, ${own.fields && [...own.fields]}, ${own.rows && [...own.rows]})`;
}

/**
 * The cells that visitors of a sheet have for their own. Places of a link that has ended stay theirs, as its end can be
 * moved; those of a revoked one are free.
 */
export async function readOwn(sql: Queryable, sheet: SheetId): Promise<Own[]> {
  const rows = await sql<{ own_fields: string[] | null; own_rows: string[] | null }[]>`
    select own_fields, own_rows from sheet_visitor visitor
    join sheet_link link on link.sheet_id = visitor.sheet_id and link.id = visitor.link_id
    where visitor.sheet_id = ${sheet} and link.revoked_at is null`;
  return rows.map(({ own_fields, own_rows }) => ({ fields: own_fields, rows: own_rows }));
}
