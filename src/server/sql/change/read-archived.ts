import type { ArchivedChange } from '../../../core/exchange/archive/archive-lines';
import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The changes after a sequence as an archive keeps them, in order, at most so many. */
export async function readArchived(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { readonly after: number; readonly limit: number },
): Promise<ArchivedChange[]> {
  const rows = await sql<{ change_id: string; author: string; seen: string | null; operations: Operation[]; inverse: Operation[]; made_at: Date }[]>`
    select change_id, seen, operations, inverse, made_at,
      coalesce(author_name(change.sheet_id, change.author), 'somebody') as author
    from sheet_change change
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map(({ change_id, author, seen, operations, inverse, made_at }) => ({
    id: change_id,
    author,
    at: made_at.getTime(),
    ...(seen === null ? {} : { seen: Number(seen) }),
    operations,
    inverse,
  }));
}
