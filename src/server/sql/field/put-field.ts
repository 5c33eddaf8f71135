import type { Field } from '../../../core/sheet/field';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Adds a field, or puts it in the place of the one with its id. */
export async function putField(sql: Queryable, sheet: SheetId, { id, key, widthPx, format, unit, ...about }: Field): Promise<void> {
  await sql`insert into sheet_field (sheet_id, id, key, width_px, format, unit, about)
    values (${sheet}, ${id}, ${key}, ${widthPx}, ${format}, ${unit}, ${JSON.stringify(about)}::text::jsonb)
    on conflict (sheet_id, id) do update
    set key = excluded.key, width_px = excluded.width_px, format = excluded.format, unit = excluded.unit, about = excluded.about`;
}
