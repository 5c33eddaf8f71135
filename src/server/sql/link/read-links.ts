import type { SheetId } from '../../../core/sheet/ids';
import type { SheetLink } from '../../../protocol/sheet-sharing';
import type { Queryable } from '../../database';

type Row = Omit<SheetLink, 'endsAt' | 'usedAt'> & { readonly ends_at: Date | null; readonly used_at: Date | null };

/** The links of a sheet that were not revoked, the newest first, with who came by them. */
export async function readLinks(sql: Queryable, sheet: SheetId): Promise<SheetLink[]> {
  const rows = await sql<Row[]>`select id, role, name, gives, invites, ends_at, used_at,
      array(select visitor.name from sheet_visitor visitor where visitor.sheet_id = link.sheet_id and visitor.link_id = link.id order by came_at) as visitors
    from sheet_link link where sheet_id = ${sheet} and revoked_at is null order by created_at desc, name, id`;
  return rows.map(({ ends_at, used_at, ...rest }) => ({ ...rest, endsAt: ends_at?.getTime() ?? null, usedAt: used_at?.getTime() ?? null }));
}
