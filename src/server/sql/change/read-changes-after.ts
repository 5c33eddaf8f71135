import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { RecordedChange } from '../../../protocol/recorded-change';
import type { Queryable } from '../../database';

/** The changes after a sequence, in order, at most so many. */
export async function readChangesAfter(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { after: number; limit: number },
): Promise<RecordedChange[]> {
  const rows = await sql<{ sequence: string; change_id: string; operations: Operation[]; made_at: Date; seen: string | null; name: string | null }[]>`
    select sequence, change_id, operations, made_at, seen, author_name(change.sheet_id, change.author) as name from sheet_change change
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map((row) => ({
    sequence: Number(row.sequence),
    at: row.made_at.getTime(),
    change: { id: row.change_id, operations: row.operations },
    ...(row.seen === null ? {} : { seen: Number(row.seen) }),
    ...(row.name === null ? {} : { by: row.name }),
  }));
}
