import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface Contents {
  readonly fields: number;
  readonly rules: number;
  readonly parts: number;
  /** 0 where they were not to be counted. */
  readonly rows: number;
}

/** How much is in a sheet. */
export async function countContents(sql: Queryable, sheet: SheetId, { rows }: { readonly rows: boolean }): Promise<Contents> {
  const [row] = await sql<Contents[]>`select
    (select count(*)::int from sheet_field where sheet_id = ${sheet}) as fields,
    (select count(*)::int from sheet_rule where sheet_id = ${sheet}) as rules,
    (select count(*)::int from sheet_part where sheet_id = ${sheet}) as parts,
    case when ${rows} then (select count(*)::int from sheet_row where sheet_id = ${sheet}) else 0 end as rows`;
  return row!;
}
