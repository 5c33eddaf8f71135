import type { ArchivedChange } from '../../../core/exchange/archive/archive-lines';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** How the author of a change is kept whom only an archive knows. */
const ARCHIVED = 'archived ';

/** Adds changes that an archive kept to the log of a new sheet, one after another from a sequence. */
export async function appendArchived(
  sql: Queryable,
  sheet: SheetId,
  { first, changes }: { readonly first: number; readonly changes: readonly ArchivedChange[] },
): Promise<void> {
  const of = (column: (change: ArchivedChange) => string) => changes.map(column);
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, seen, operations, inverse, made_at)
    select ${sheet}, ${first - 1} + place, id, author, nullif(seen, '')::bigint, operations::json, inverse::json, made_at::timestamptz
    from unnest(
      ${of(({ id }) => id)}::text[], ${of(({ author }) => ARCHIVED + author)}::text[], ${of(({ seen }) => String(seen ?? ''))}::text[],
      ${of(({ operations }) => JSON.stringify(operations))}::text[], ${of(({ inverse }) => JSON.stringify(inverse))}::text[],
      ${of(({ at }) => new Date(at).toISOString())}::text[]
    ) with ordinality as kept (id, author, seen, operations, inverse, made_at, place)`;
}
