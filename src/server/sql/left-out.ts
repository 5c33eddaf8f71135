import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

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

/** Notes that a sheet is left out from now on, as it is after its last change. A missing sheet is ignored. */
export async function noteLeftOut(sql: Queryable, sheet: SheetId): Promise<void> {
  await sql`
    insert into sheet_left_out (sheet_id, sequence, times)
    select id, head, 1 from sheet where id = ${sheet}
    on conflict (sheet_id) do update set sequence = excluded.sequence, at = now(),
      -- What is long ago counts no more.
      times = case when sheet_left_out.at < now() - interval '2 hours' then 1 else least(sheet_left_out.times + 1, 20) end`;
}
