import type { FieldId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Removes fields; what rows hold in them is for the caller to clear. */
export async function deleteFields(sql: Queryable, sheet: SheetId, ids: readonly FieldId[]): Promise<void> {
  await sql`delete from sheet_field where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
