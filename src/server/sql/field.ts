import type { Field } from '../../core/sheet/field';
import type { FieldId, SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

/** Removes fields; what rows hold in them is for the caller to clear. */
export async function deleteFields(sql: Queryable, sheet: SheetId, ids: readonly FieldId[]): Promise<void> {
  await sql`delete from sheet_field where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;
}

/** Adds a field, or replaces the one with its id. */
export async function putField(
  sql: Queryable,
  sheet: SheetId,
  { id, key, widthPx, format, unit, ...about }: Field,
): Promise<void> {
  await sql`insert into sheet_field (sheet_id, id, key, width_px, format, unit, about)
    values (${sheet}, ${id}, ${key}, ${widthPx}, ${format}, ${unit}, ${JSON.stringify(about)}::text::jsonb)
    on conflict (sheet_id, id) do update
    set key = excluded.key, width_px = excluded.width_px, format = excluded.format, unit = excluded.unit, about = excluded.about`;
}

type FieldRow = Pick<Field, 'id' | 'key' | 'format' | 'unit'> & {
  readonly width_px: number;
  readonly about: Pick<Field, 'style' | 'hidden' | 'allowed'>;
};

/** The fields from left to right; with ids only those. */
export async function readFields(sql: Queryable, sheet: SheetId, ids?: readonly FieldId[]): Promise<Field[]> {
  const rows = await sql<FieldRow[]>`
    select id, key, width_px, format, unit, about from sheet_field
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${[...ids]}::text[])` : sql`true`} order by key, id`;
  return rows.map(({ width_px, about, ...rest }) => ({ ...rest, widthPx: width_px, ...about }));
}
