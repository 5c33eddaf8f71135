import type { RowRole } from '../../../core/sheet/row-role';
import type { FieldId, RowId, SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface KeyedRow {
  readonly id: RowId;
  readonly key: string;
  readonly role: RowRole;
  readonly isBlank: boolean;
  /** What it holds in the fields asked for, in their order. */
  readonly held: readonly (string | null)[];
}

/** Every row from top to bottom with what it holds in some fields. */
export async function readKeyedRows(sql: Queryable, sheet: SheetId, fields: readonly FieldId[]): Promise<KeyedRow[]> {
  return sql<KeyedRow[]>`
    select id, key, role, cells = '{}' as "isBlank", array(select cells ->> field from unnest(${fields as string[]}::text[]) with ordinality as wanted (field, place) order by place) as held
    from sheet_row where sheet_id = ${sheet} order by key, id`;
}
