import type { RowId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export async function deleteRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<void> {
  await sql`delete from sheet_row where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
