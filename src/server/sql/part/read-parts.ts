import type { PartId, SheetId } from '../../../core/sheet/ids';
import type { SheetPart } from '../../../core/sheet/sheet-part';
import type { Queryable } from '../../database';

/** The parts of a sheet; with ids only those. */
export async function readParts(sql: Queryable, sheet: SheetId, ids?: readonly PartId[]): Promise<SheetPart[]> {
  const rows = await sql<{ part: SheetPart }[]>`
    select part from sheet_part
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${ids as string[]}::text[])` : sql`true`} order by id`;
  return rows.map(({ part }) => part);
}
