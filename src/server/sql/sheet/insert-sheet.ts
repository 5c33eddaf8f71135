import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Makes a sheet, still without fields and rows. */
export async function insertSheet(sql: Queryable, { id, name }: { readonly id: SheetId; readonly name: string }): Promise<void> {
  await sql`insert into sheet (id, name) values (${id}, ${name})`;
}
