import type { SheetId } from '../../../core/sheet/ids';
import type { SheetPart } from '../../../core/sheet/sheet-part';
import type { Queryable } from '../../database';

/** Adds a part, or puts it in the place of the one with its id. */
export async function putPart(sql: Queryable, sheet: SheetId, part: SheetPart): Promise<void> {
  await sql`insert into sheet_part (sheet_id, id, part) values (${sheet}, ${part.id}, ${JSON.stringify(part)}::text::jsonb)
    on conflict (sheet_id, id) do update set part = excluded.part`;
}
