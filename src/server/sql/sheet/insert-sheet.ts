import type { SheetId } from '../../../core/sheet/ids';
import type { SheetSettings } from '../../../core/sheet/sheet-settings';
import type { Queryable } from '../../database';

interface InsertedSheet {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  /** Milliseconds of the Unix epoch. */
  readonly createdAt: number;
}

/** Makes a sheet, still without fields and rows. */
export async function insertSheet(sql: Queryable, { id, name, settings, createdAt }: InsertedSheet): Promise<void> {
  await sql`insert into sheet (id, name, settings, created_at) values (${id}, ${name}, ${JSON.stringify(settings)}::text::jsonb, ${new Date(createdAt)})`;
}
