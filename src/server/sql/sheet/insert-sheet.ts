import type { Field } from '../../../core/sheet/sheet';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface NewSheet {
  readonly id: SheetId;
  readonly name: string;
  readonly fields: readonly (Field & { readonly key: string })[];
}

/** Makes a sheet with its fields, still without rows. */
export async function insertSheet(sql: Queryable, { id, name, fields }: NewSheet): Promise<void> {
  await sql`insert into sheet (id, name) values (${id}, ${name})`;
  for (const field of fields)
    await sql`insert into sheet_field (sheet_id, id, key, width_px, format, unit)
      values (${id}, ${field.id}, ${field.key}, ${field.widthPx}, ${field.format}, ${field.unit})`;
}
