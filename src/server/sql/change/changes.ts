import type { Change, Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { RecordedChange } from '../../../protocol/recorded-change';
import type { Queryable } from '../../database';

/** The sequence of a change that was taken before, by the id its client made. */
export async function findChange(sql: Queryable, sheet: SheetId, changeId: string): Promise<number | undefined> {
  const [row] = await sql<{ sequence: string }[]>`select sequence from sheet_change where sheet_id = ${sheet} and change_id = ${changeId}`;
  return row && Number(row.sequence);
}

export interface AppendedChange {
  readonly sheet: SheetId;
  readonly sequence: number;
  readonly author: string;
  readonly change: Change;
  readonly inverse: readonly Operation[];
}

/** Adds a change to the log. */
export async function appendChange(sql: Queryable, { sheet, sequence, author, change, inverse }: AppendedChange): Promise<void> {
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, operations, inverse)
    values (${sheet}, ${sequence}, ${change.id}, ${author}, ${JSON.stringify(change.operations)}::text::jsonb, ${JSON.stringify(inverse)}::text::jsonb)`;
}

/** The changes after a sequence, in order, at most so many. */
export async function readChangesAfter(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { after: number; limit: number },
): Promise<RecordedChange[]> {
  const rows = await sql<{ sequence: string; change_id: string; operations: Operation[] }[]>`
    select sequence, change_id, operations from sheet_change
    where sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map((row) => ({ sequence: Number(row.sequence), change: { id: row.change_id, operations: row.operations } }));
}
