import type { StoredRow } from '../../../core/sheet/change';
import type { RowId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The rows with these ids that exist, in no order. */
export async function findRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<StoredRow[]> {
  return sql<StoredRow[]>`select id, key, role, cells from sheet_row where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}

/** Every row from top to bottom, in batches, so that a large sheet is never held twice. */
export async function readRowsInBatches(sql: Queryable, sheet: SheetId, take: (rows: readonly StoredRow[]) => void): Promise<void> {
  await sql<StoredRow[]>`select id, key, role, cells from sheet_row where sheet_id = ${sheet} order by key, id`.cursor(5000, (rows) => take(rows));
}

export async function insertRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  await sql`insert into sheet_row (sheet_id, id, key, role, cells)
    select ${sheet}, id, key, role, cells::jsonb
    from unnest(${rows.map((row) => row.id)}::text[], ${rows.map((row) => row.key)}::text[], ${rows.map((row) => row.role)}::text[],
      ${rows.map((row) => JSON.stringify(row.cells))}::text[]) as fresh (id, key, role, cells)`;
}

/** Writes the cells of rows that exist. */
export async function updateCells(sql: Queryable, sheet: SheetId, rows: readonly Pick<StoredRow, 'id' | 'cells'>[]): Promise<void> {
  await sql`update sheet_row set cells = fresh.cells::jsonb
    from unnest(${rows.map((row) => row.id)}::text[], ${rows.map((row) => JSON.stringify(row.cells))}::text[]) as fresh (id, cells)
    where sheet_id = ${sheet} and sheet_row.id = fresh.id`;
}

export async function deleteRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<void> {
  await sql`delete from sheet_row where sheet_id = ${sheet} and id = any(${ids as string[]}::text[])`;
}
