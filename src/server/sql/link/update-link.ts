import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Ends a link for good; false where there is none such. */
export async function revokeLink(sql: Queryable, sheet: SheetId, id: string): Promise<boolean> {
  const { count } = await sql`update sheet_link set revoked_at = now() where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}

/** Gives a link another end, null for none; false where there is none such. */
export async function endLink(
  sql: Queryable,
  sheet: SheetId,
  { id, endsAt }: { readonly id: string; readonly endsAt: Date | null },
): Promise<boolean> {
  const { count } = await sql`update sheet_link set ends_at = ${endsAt} where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}

/** Notes that somebody was there by a link: at most once a minute. */
export async function noteLinkUse(sql: Queryable, sheet: SheetId, id: string): Promise<void> {
  await sql`update sheet_link set used_at = now()
    where sheet_id = ${sheet} and id = ${id} and (used_at is null or used_at < now() - interval '1 minute')`;
}
