import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { HistoryQuery } from '../../../protocol/sheet-history';
import type { Queryable } from '../../database';

export interface LoggedChange {
  readonly sequence: number;
  readonly at: number;
  readonly author: string;
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
}

/** Changes of the log, the newest first, at most so many. */
export async function readHistory(
  sql: Queryable,
  sheet: SheetId,
  { before, field, row, limit }: HistoryQuery & { readonly limit: number },
): Promise<LoggedChange[]> {
  const entered = sql`exists (
    select from json_array_elements(operations) step, json_array_elements(step -> 'cells') cell
    where step ->> 'kind' = 'set-cells'
      and ${field === undefined ? sql`true` : sql`cell ->> 'field' = ${field}`}
      and ${row === undefined ? sql`true` : sql`cell ->> 'row' = ${row}`})`;
  const rows = await sql<{ sequence: string; made_at: Date; author: string; operations: Operation[]; inverse: Operation[] }[]>`
    select sequence, made_at, author, operations, inverse from sheet_change
    where sheet_id = ${sheet} and ${before === undefined ? sql`true` : sql`sequence < ${before}`}
      and ${field === undefined && row === undefined ? sql`true` : entered}
    order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, ...rest }) => ({ ...rest, sequence: Number(sequence), at: made_at.getTime() }));
}
