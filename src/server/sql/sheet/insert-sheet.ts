import type { SheetId } from '../../../core/sheet/ids';
import type { SheetSettings } from '../../../core/sheet/sheet-settings';
import type { Queryable } from '../../database';

interface InsertedSheet {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
}

/** Makes a sheet, still without fields and rows. */
export async function insertSheet(sql: Queryable, { id, name, settings }: InsertedSheet): Promise<void> {
  await sql`insert into sheet (id, name, settings) values (${id}, ${name}, ${JSON.stringify(settings)}::text::jsonb)`;
}
