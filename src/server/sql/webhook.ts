import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

/** The local address to which a sheet's findings are posted. */
export async function findHook(sql: Queryable, sheet: SheetId): Promise<string | undefined> {
  const [row] = await sql<{ url: string }[]>`select url from finding_hook where sheet_id = ${sheet}`;
  return row?.url;
}

/** Sets it, or takes it away. */
export async function setHook(sql: Queryable, sheet: SheetId, url: string | null): Promise<void> {
  if (url === null) await sql`delete from finding_hook where sheet_id = ${sheet}`;
  else
    await sql`insert into finding_hook (sheet_id, url) values (${sheet}, ${url}) on conflict (sheet_id) do update set url = excluded.url`;
}
