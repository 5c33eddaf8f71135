import type { Field } from '../../../core/sheet/field';
import type { FieldId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

type FieldRow = Pick<Field, 'id' | 'key' | 'format' | 'unit'> & {
  readonly width_px: number;
  readonly about: Pick<Field, 'style' | 'hidden' | 'allowed'>;
};

/** The fields from left to right; with ids only those. */
export async function readFields(sql: Queryable, sheet: SheetId, ids?: readonly FieldId[]): Promise<Field[]> {
  const rows = await sql<FieldRow[]>`
    select id, key, width_px, format, unit, about from sheet_field
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${ids as string[]}::text[])` : sql`true`} order by key, id`;
  return rows.map(({ width_px, about, ...rest }) => ({ ...rest, widthPx: width_px, ...about }));
}
