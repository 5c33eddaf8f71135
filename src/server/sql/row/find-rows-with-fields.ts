import type { StoredRow } from '../../../core/sheet/change';
import type { FieldId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';
import { plainRow, type RowRow } from './row-columns';

/** The rows that hold something in one of these fields, or a style for it, in order. */
export async function findRowsWithFields(sql: Queryable, sheet: SheetId, fields: readonly FieldId[]): Promise<StoredRow[]> {
  const rows = await sql<RowRow[]>`
    select id, key, role, cells, about from sheet_row
    where sheet_id = ${sheet} and (cells ?| ${fields as string[]}::text[] or about -> 'styles' ?| ${fields as string[]}::text[]) order by key, id`;
  return rows.map(plainRow);
}
