import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** How many records of a sheet hold something. */
export async function countRecords(sql: Queryable, sheet: SheetId): Promise<number> {
  const [row] = await sql<{ count: string }[]>`select count(*) from sheet_row where sheet_id = ${sheet} and role = 'record' and cells <> '{}'`;
  return Number(row!.count);
}
