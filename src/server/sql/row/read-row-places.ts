import type { RowId, SheetId } from '../../../core/sheet/ids';
import type { RowRole } from '../../../core/sheet/row-role';
import type { Queryable } from '../../database';

/** The rows of a sheet from top to bottom, without what is in them. */
export const readRowPlaces = async (sql: Queryable, sheet: SheetId): Promise<{ readonly id: RowId; readonly role: RowRole }[]> => [
  ...(await sql<{ id: RowId; role: RowRole }[]>`select id, role from sheet_row where sheet_id = ${sheet} order by key, id`),
];
