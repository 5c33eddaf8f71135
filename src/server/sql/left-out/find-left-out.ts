import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface LeftOut {
  /** The sheet's last change when it was left out. */
  readonly sequence: number;
  /** How often that has happened in a row. */
  readonly times: number;
  /** When, milliseconds of the Unix epoch. */
  readonly at: number;
  /** The sheet's last change now. */
  readonly head: number;
}

/** Whether and when a sheet was left out. */
export async function findLeftOut(sql: Queryable, sheet: SheetId): Promise<LeftOut | undefined> {
  const [row] = await sql<{ sequence: string; times: number; at: Date; head: string }[]>`
    select left_out.sequence, times, at, head from sheet_left_out left_out join sheet on sheet.id = sheet_id where sheet_id = ${sheet}`;
  return row && { sequence: Number(row.sequence), times: row.times, at: row.at.getTime(), head: Number(row.head) };
}
