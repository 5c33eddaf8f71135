import { itemAt } from '../../core/values/item-at';
import type { StoredRow } from '../../core/sheet/change';
import type { FieldId, RowId, SheetId } from '../../core/sheet/ids';
import type { RowRole } from '../../core/sheet/row-role';
import type { Queryable } from '../database';

/** How many records of a sheet hold something. */
export async function countRecords(sql: Queryable, sheet: SheetId): Promise<number> {
  const rows = await sql<
    { count: string }[]
  >`select count(*) from sheet_row where sheet_id = ${sheet} and role = 'record' and cells <> '{}'`;
  return Number(itemAt(rows, 0).count);
}

export async function deleteRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<void> {
  await sql`delete from sheet_row where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;
}

/** A row as the database gives it: `about` is null where the row has no format. */
export type RowRow = Omit<StoredRow, 'about'> & { readonly about: NonNullable<StoredRow['about']> | null };

export const plainRow = ({ about, ...row }: RowRow): StoredRow => (about ? { ...row, about } : row);

/** Rows as columns of equal length, to be unnested. */
export const rowColumns = (rows: readonly StoredRow[]) => ({
  ids: rows.map((row) => row.id),
  keys: rows.map((row) => row.key),
  roles: rows.map((row) => row.role),
  cells: rows.map((row) => JSON.stringify(row.cells)),
  abouts: rows.map((row) => (row.about ? JSON.stringify(row.about) : null)),
});

/** The first header row, or undefined where there is none. */
export async function findHeader(sql: Queryable, sheet: SheetId): Promise<StoredRow | undefined> {
  const [row] = await sql<RowRow[]>`
    select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} and role = 'header' order by key, id limit 1`;
  return row && plainRow(row);
}

/** The rows that hold something in one of these fields, or a style for it, in order. */
export async function findRowsWithFields(
  sql: Queryable,
  sheet: SheetId,
  fields: readonly FieldId[],
): Promise<StoredRow[]> {
  const rows = await sql<RowRow[]>`
    select id, key, role, cells, about from sheet_row
    where sheet_id = ${sheet} and (cells ?| ${[...fields]}::text[] or about -> 'styles' ?| ${[...fields]}::text[]) order by key, id`;
  return rows.map(plainRow);
}

/** The rows with these ids that exist, in no order. */
export async function findRows(sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<StoredRow[]> {
  const rows = await sql<
    RowRow[]
  >`select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;
  return rows.map(plainRow);
}

export async function insertRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  const { ids, keys, roles, cells, abouts } = rowColumns(rows);
  await sql`insert into sheet_row (sheet_id, id, key, role, cells, about)
    select ${sheet}, id, key, role, cells::jsonb, about::jsonb
    from unnest(${ids}::text[], ${keys}::text[], ${roles}::text[], ${cells}::text[], ${abouts}::text[]) as fresh (id, key, role, cells, about)`;
}

/** A row and the order key of its place. */
export interface MovedRow {
  readonly id: RowId;
  readonly key: string;
}

/** The places of the rows with these ids that exist, in no order. */
export const findRowKeys = async (sql: Queryable, sheet: SheetId, ids: readonly RowId[]): Promise<MovedRow[]> =>
  sql<MovedRow[]>`select id, key from sheet_row where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;

/** Gives rows other places; no row is there twice. */
export async function updateRowKeys(sql: Queryable, sheet: SheetId, moves: readonly MovedRow[]): Promise<void> {
  const [ids, keys] = [moves.map(({ id }) => id), moves.map(({ key }) => key)];
  await sql`update sheet_row set key = fresh.key from unnest(${ids}::text[], ${keys}::text[]) as fresh (id, key)
    where sheet_id = ${sheet} and sheet_row.id = fresh.id`;
}

export interface KeyedRow {
  readonly id: RowId;
  readonly key: string;
  readonly role: RowRole;
  readonly isBlank: boolean;
  /** Its contents in the requested fields, in their order. */
  readonly held: readonly (string | null)[];
}

/** Every row from top to bottom with what it holds in some fields. */
export async function readKeyedRows(sql: Queryable, sheet: SheetId, fields: readonly FieldId[]): Promise<KeyedRow[]> {
  return sql<KeyedRow[]>`
    select id, key, role, cells = '{}' as "isBlank", array(select cells ->> field from unnest(${[...fields]}::text[]) with ordinality as wanted (field, place) order by place) as held
    from sheet_row where sheet_id = ${sheet} order by key, id`;
}

/** The rows of a sheet from top to bottom, without what is in them. */
export const readRowPlaces = async (
  sql: Queryable,
  sheet: SheetId,
): Promise<{ readonly id: RowId; readonly role: RowRole }[]> => [
  ...(await sql<
    { id: RowId; role: RowRole }[]
  >`select id, role from sheet_row where sheet_id = ${sheet} order by key, id`),
];

const ROWS_AT_ONCE = 5000;

/** Every row from top to bottom, batch by batch as they are asked for. */
export async function* rowsInBatches(sql: Queryable, sheet: SheetId): AsyncGenerator<readonly StoredRow[]> {
  const cursor = sql<
    RowRow[]
  >`select id, key, role, cells, about from sheet_row where sheet_id = ${sheet} order by key, id`.cursor(ROWS_AT_ONCE);
  for await (const rows of cursor) yield rows.map(plainRow);
}

/** Every row from top to bottom, in batches, so that a large sheet is never held twice. */
export async function readRowsInBatches(
  sql: Queryable,
  sheet: SheetId,
  take: (rows: readonly StoredRow[]) => void,
): Promise<void> {
  for await (const rows of rowsInBatches(sql, sheet)) take(rows);
}

/** Writes rows that exist, whole. */
export async function updateRows(sql: Queryable, sheet: SheetId, rows: readonly StoredRow[]): Promise<void> {
  const { ids, keys, roles, cells, abouts } = rowColumns(rows);
  await sql`update sheet_row set key = fresh.key, role = fresh.role, cells = fresh.cells::jsonb, about = fresh.about::jsonb
    from unnest(${ids}::text[], ${keys}::text[], ${roles}::text[], ${cells}::text[], ${abouts}::text[]) as fresh (id, key, role, cells, about)
    where sheet_id = ${sheet} and sheet_row.id = fresh.id`;
}
