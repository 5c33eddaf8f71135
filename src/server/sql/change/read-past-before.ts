import type { PastChange } from '../../../core/rules/evaluate/cell-past';
import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

interface LoggedPast extends PastChange {
  /** How many cells it tells of. */
  readonly cells: number;
}

/** What the changes before a sequence took from cells, the newest first, at most so many. */
export async function readPastBefore(sql: Queryable, sheet: SheetId, { before, limit }: { before: number; limit: number }): Promise<LoggedPast[]> {
  const rows = await sql<{ sequence: string; made_at: Date; inverse: Operation[]; cells: string }[]>`
    select sequence, made_at,
      jsonb_path_query_array(inverse::jsonb, '$[*] ? (@.kind == "set-cells" || @.kind == "remove-rows")') as inverse,
      (select coalesce(sum(jsonb_array_length(coalesce(step -> 'cells', step -> 'rows', '[]'))), 0)
        from jsonb_array_elements(inverse::jsonb) step where step ->> 'kind' in ('set-cells', 'remove-rows')) as cells
    from sheet_change where sheet_id = ${sheet} and sequence < ${before} order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, inverse, cells }) => ({ sequence: Number(sequence), at: made_at.getTime(), inverse, cells: Number(cells) }));
}
