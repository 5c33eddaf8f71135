import type { Field } from '../../../core/sheet/sheet';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The fields from left to right. */
export async function readFields(sql: Queryable, id: SheetId): Promise<Field[]> {
  const rows = await sql<{ id: string; width_px: number; format: string | null; unit: string | null }[]>`
    select id, width_px, format, unit from sheet_field where sheet_id = ${id} order by key, id`;
  return rows.map(({ width_px, ...rest }) => ({ ...rest, widthPx: width_px }));
}
