import type { FieldId, SheetId } from '../../core/sheet/ids';
import type { LinkedColumn } from '../../core/rules/sql/linked-table';
import type { Queryable } from '../database';

/** A column of a linked table, and the field of the sheet that shows it. */
export interface FieldColumn extends LinkedColumn {
  readonly field: FieldId;
}

/** The table of a sheet whose records stay in another database. */
export interface StoredLink {
  readonly sealed: Uint8Array;
  readonly host: string;
  readonly relation: readonly string[];
  readonly columns: readonly FieldColumn[];
  readonly key: readonly string[];
}

export async function insertLinkedTable(sql: Queryable, sheet: SheetId, link: StoredLink): Promise<void> {
  const { sealed, host, relation, columns, key } = link;
  await sql`insert into linked_table (sheet_id, sealed, host, relation, columns, key)
    values (${sheet}, ${Buffer.from(sealed)}, ${host}, ${[...relation]}::text[], ${JSON.stringify(columns)}::text::jsonb, ${[...key]}::text[])`;
}

/** The linked tables of some sheets, by name. */
export async function namesOfLinked(sql: Queryable, sheets: readonly SheetId[]): Promise<ReadonlyMap<SheetId, string>> {
  const rows = await sql<{ sheet_id: SheetId; relation: readonly string[] }[]>`
    select sheet_id, relation from linked_table where sheet_id = any(${[...sheets]})`;
  return new Map(rows.map(({ sheet_id, relation }) => [sheet_id, relation.join('.')]));
}

/** The linked table of a sheet; undefined where its records are here. */
export async function findLinkedTable(sql: Queryable, sheet: SheetId): Promise<StoredLink | undefined> {
  const [row] = await sql<StoredLink[]>`
    select sealed, host, relation, columns, key from linked_table where sheet_id = ${sheet}`;
  return row;
}
