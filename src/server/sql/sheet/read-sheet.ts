import type { Field, SheetSettings } from '../../../core/sheet/sheet';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface SheetHead {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  /** Sequence of the last change. */
  readonly head: number;
}

/** A sheet's head, or undefined where there is no such sheet. */
export async function findSheet(sql: Queryable, id: SheetId): Promise<SheetHead | undefined> {
  const [row] = await sql<
    { id: string; name: string; settings: SheetSettings; head: string }[]
  >`select id, name, settings, head from sheet where id = ${id}`;
  return row && { ...row, head: Number(row.head) };
}

/** The fields from left to right. */
export async function readFields(sql: Queryable, id: SheetId): Promise<Field[]> {
  const rows = await sql<{ id: string; width_px: number; format: string | null; unit: string | null }[]>`
    select id, width_px, format, unit from sheet_field where sheet_id = ${id} order by key, id`;
  return rows.map(({ width_px, ...rest }) => ({ ...rest, widthPx: width_px }));
}

/** Takes the sheet for the length of a transaction, so that changes come one after another; the sequence of the last one. */
export async function lockHead(sql: Queryable, id: SheetId): Promise<number | undefined> {
  const [row] = await sql<{ head: string }[]>`select head from sheet where id = ${id} for update`;
  return row && Number(row.head);
}

/** Moves the head on after a change. */
export async function moveHead(sql: Queryable, id: SheetId, head: number): Promise<void> {
  await sql`update sheet set head = ${head}, changed_at = now() where id = ${id}`;
}
