import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Notes that a sheet is left out from now on, as it is after its last change. A sheet that is gone is passed over. */
export async function noteLeftOut(sql: Queryable, sheet: SheetId): Promise<void> {
  await sql`
    insert into sheet_left_out (sheet_id, sequence, times)
    select id, head, 1 from sheet where id = ${sheet}
    on conflict (sheet_id) do update set sequence = excluded.sequence, at = now(),
      -- What is long ago counts no more.
      times = case when sheet_left_out.at < now() - interval '2 hours' then 1 else least(sheet_left_out.times + 1, 20) end`;
}
