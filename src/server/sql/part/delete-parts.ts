import type { PartId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export async function deleteParts(sql: Queryable, sheet: SheetId, ids: readonly PartId[]): Promise<void> {
  await sql`delete from sheet_part where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
