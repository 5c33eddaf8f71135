import type { PartId, SheetId } from '../../core/sheet/ids';
import type { SheetPart } from '../../core/sheet/sheet-part';
import type { Queryable } from '../database';

export async function deleteParts(sql: Queryable, sheet: SheetId, ids: readonly PartId[]): Promise<void> {
  await sql`delete from sheet_part where sheet_id = ${sheet} and id = any(${[...ids]}::text[])`;
}

/** Adds a part, or replaces the one with its id. */
export async function putPart(sql: Queryable, sheet: SheetId, part: SheetPart): Promise<void> {
  await sql`insert into sheet_part (sheet_id, id, part) values (${sheet}, ${part.id}, ${JSON.stringify(part)}::text::jsonb)
    on conflict (sheet_id, id) do update set part = excluded.part`;
}

/** The parts of a sheet; with ids only those. */
export async function readParts(sql: Queryable, sheet: SheetId, ids?: readonly PartId[]): Promise<SheetPart[]> {
  const rows = await sql<{ part: SheetPart }[]>`
    select part from sheet_part
    where sheet_id = ${sheet} and ${ids ? sql`id = any(${[...ids]}::text[])` : sql`true`} order by id`;
  return rows.map(({ part }) => part);
}
