import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Moves the head on after a change. */
export async function moveHead(sql: Queryable, id: SheetId, head: number): Promise<void> {
  await sql`update sheet set head = ${head}, changed_at = now() where id = ${id}`;
}
