import type { Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { HistoryQuery } from '../../../protocol/sheet-history';
import type { Queryable } from '../../database';

/** A change as it is told: of what it did to many cells or rows only the first are there. */
export interface ToldChange {
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
  /** The name of who made it. */
  readonly author: string;
  /** As changes are signed: `person ID`, `visitor ID`, `program ID` or `archived NAME`. */
  readonly by: string;
  readonly operations: readonly Operation[];
  /** What takes those first ones back. */
  readonly inverse: readonly Operation[];
  /** How many cells, rows and so on each of the operations was about. */
  readonly counts: readonly number[];
}

/** Cells and rows of one operation that are read. */
const MOST_ITEMS = 100;

/** Changes of the log, the newest first, at most so many. */
export async function readHistory(
  sql: Queryable,
  sheet: SheetId,
  { before, field, row, rule, by, limit }: HistoryQuery & { readonly limit: number },
): Promise<ToldChange[]> {
  const entered = sql`exists (
    select from json_array_elements(operations) step, json_array_elements(step -> 'cells') cell
    where step ->> 'kind' = 'set-cells'
      and ${field === undefined ? sql`true` : sql`cell ->> 'field' = ${field}`}
      and ${row === undefined ? sql`true` : sql`cell ->> 'row' = ${row}`})`;
  const ruled = sql`exists (
    select from json_array_elements(operations) step where
      (step ->> 'kind' = 'put-rules' and exists (select from json_array_elements(step -> 'rules') item where item ->> 'id' = ${rule ?? ''}))
      or (step ->> 'kind' = 'remove-rules' and (step -> 'rules')::jsonb ? ${rule ?? ''}))`;
  // What is asked for by field or record is among the first ones then.
  const isWanted = sql`${field === undefined ? sql`true` : sql`item ->> 'field' = ${field}`} and ${row === undefined ? sql`true` : sql`item ->> 'row' = ${row}`}`;
  // The inverse goes back from the last one to the first.
  const cut = (steps: 'operations' | 'inverse') => sql`(
    select coalesce(json_agg(case when items is null then step else ((step::jsonb - 'cells' - 'rows') || jsonb_build_object(name, (
        select coalesce(jsonb_agg(item order by place), '[]') from (
          select item, place from jsonb_array_elements(items) with ordinality as each (item, place)
          where name = 'rows' or step ->> 'kind' <> 'set-cells' or (${isWanted})
          order by place ${steps === 'operations' ? sql`asc` : sql`desc`} limit ${MOST_ITEMS}) first_items)))::json end order by at), '[]')
    from json_array_elements(${sql(steps)}) with ordinality as all_steps (step, at),
      lateral (select case when step -> 'cells' is not null then 'cells' when step -> 'rows' is not null then 'rows' end as name) named,
      lateral (select (step::jsonb) -> name as items) listed)`;
  const rows = await sql<
    { sequence: string; made_at: Date; author: string; by: string; operations: Operation[]; inverse: Operation[]; counts: number[] }[]
  >`
    select sequence, made_at, author as by, coalesce(author_name(change.sheet_id, change.author), 'somebody') as author, ${cut('operations')} as operations, ${cut('inverse')} as inverse,
      (select coalesce(json_agg(coalesce(json_array_length(coalesce(step -> 'cells', step -> 'rows')), 0) order by at), '[]')
        from json_array_elements(operations) with ordinality as all_steps (step, at)) as counts
    from sheet_change change
    where change.sheet_id = ${sheet} and ${before === undefined ? sql`true` : sql`sequence < ${before}`}
      and ${field === undefined && row === undefined ? sql`true` : entered}
      and ${rule === undefined ? sql`true` : ruled}
      and ${by === undefined ? sql`true` : sql`change.author = ${by}`}
    order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, ...rest }) => ({ ...rest, sequence: Number(sequence), at: made_at.getTime() }));
}
