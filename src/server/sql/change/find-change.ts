import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** The sequence of a change that was taken before, by the id its client made. */
export async function findChange(sql: Queryable, sheet: SheetId, changeId: string): Promise<number | undefined> {
  const [row] = await sql<{ sequence: string }[]>`select sequence from sheet_change where sheet_id = ${sheet} and change_id = ${changeId}`;
  return row && Number(row.sequence);
}
