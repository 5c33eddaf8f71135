import type { SheetId } from '../../core/sheet/ids';
import { itemAt } from '../../core/values/item-at';
import type { Queryable } from '../database';

interface Lease {
  readonly owner: string;
  readonly forMs: number;
}

/**
 * Takes the lease of a sheet, or takes it for longer, unless it is somebody else's. How long theirs lasts yet, in
 * milliseconds; 0 where it is the owner's now.
 */
export async function takeLease(sql: Queryable, sheet: SheetId, { owner, forMs }: Lease): Promise<number> {
  const rows = await sql<{ theirs_ms: number }[]>`
    with taken as (
      insert into sheet_lease (sheet_id, owner, ends_at)
      values (${sheet}, ${owner}, clock_timestamp() + make_interval(secs => ${forMs / 1000}))
      on conflict (sheet_id) do update set owner = excluded.owner, ends_at = excluded.ends_at
        where sheet_lease.owner = excluded.owner or sheet_lease.ends_at <= clock_timestamp()
      returning 1
    )
    select case when exists (select from taken) then 0 else coalesce((
      select greatest(1, extract(epoch from ends_at - clock_timestamp()) * 1000)
      from sheet_lease where sheet_id = ${sheet}), 1) end::float8 as theirs_ms`;
  return itemAt(rows, 0).theirs_ms;
}

/** Takes leases for longer that are an owner's still. Gives those. */
export async function renewLeases(
  sql: Queryable,
  sheets: readonly SheetId[],
  { owner, forMs }: Lease,
): Promise<ReadonlySet<SheetId>> {
  const rows = await sql<{ sheet_id: SheetId }[]>`
    update sheet_lease set ends_at = clock_timestamp() + make_interval(secs => ${forMs / 1000})
    where sheet_id = any(${[...sheets]}::text[]) and owner = ${owner} returning sheet_id`;
  return new Set(rows.map(({ sheet_id }) => sheet_id));
}
