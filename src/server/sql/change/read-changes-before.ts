import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface LoggedChange {
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
}

/** The changes before a sequence with all that is in them, the newest first, at most so many. */
export async function readChangesBefore(
  sql: Queryable,
  sheet: SheetId,
  { before, limit }: { readonly before: number; readonly limit: number },
): Promise<LoggedChange[]> {
  const rows = await sql<{ sequence: string; made_at: Date; operations: Operation[]; inverse: Operation[] }[]>`
    select sequence, made_at, operations, inverse from sheet_change
    where sheet_id = ${sheet} and sequence < ${before} order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, operations, inverse }) => ({ sequence: Number(sequence), at: made_at.getTime(), operations, inverse }));
}
