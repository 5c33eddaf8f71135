import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Takes the sheet for the length of a transaction, so that changes come one after another; the sequence of the last one. */
export async function lockHead(sql: Queryable, id: SheetId): Promise<number | undefined> {
  const [row] = await sql<{ head: string }[]>`select head from sheet where id = ${id} for update`;
  return row && Number(row.head);
}
