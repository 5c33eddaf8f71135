import type { StoredRow } from '../../../core/sheet/change';

/** A row as the database gives it: `about` is null where the row has nothing besides cells. */
export type RowRow = Omit<StoredRow, 'about'> & { readonly about: NonNullable<StoredRow['about']> | null };

export const plainRow = ({ about, ...row }: RowRow): StoredRow => (about ? { ...row, about } : row);

/** Rows as columns of equal length, to be unnested. */
export const rowColumns = (rows: readonly StoredRow[]) => ({
  ids: rows.map((row) => row.id as string),
  keys: rows.map((row) => row.key),
  roles: rows.map((row) => row.role as string),
  cells: rows.map((row) => JSON.stringify(row.cells)),
  abouts: rows.map((row) => (row.about ? JSON.stringify(row.about) : null)),
});
