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
    select sequence, change_id, operations, made_at, seen, coalesce(person.name, visitor.name) as name from sheet_change change
    left join person on change.author like 'person %' and person.id = substr(change.author, 8)
    left join sheet_visitor visitor on visitor.sheet_id = change.sheet_id and change.author like 'visitor %' and visitor.id = substr(change.author, 9)
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map((row) => ({
    sequence: Number(row.sequence),
    at: row.made_at.getTime(),
    change: { id: row.change_id, operations: row.operations },
    ...(row.seen === null ? {} : { seen: Number(row.seen) }),
    ...(row.name === null ? {} : { by: row.name }),
  }));
}
