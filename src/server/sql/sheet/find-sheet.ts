import type { SheetSettings } from '../../../core/sheet/sheet-settings';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface SheetHead {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  /** Sequence of the last change. */
  readonly head: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly createdAt: number;
}

/** A sheet's head, or undefined where there is no such sheet. */
export async function findSheet(sql: Queryable, id: SheetId): Promise<SheetHead | undefined> {
  const [row] = await sql<
    { id: string; name: string; settings: SheetSettings; head: string; created_at: Date }[]
  >`select id, name, settings, head, created_at from sheet where id = ${id}`;
  return row && { id: row.id, name: row.name, settings: row.settings, head: Number(row.head), createdAt: row.created_at.getTime() };
}
