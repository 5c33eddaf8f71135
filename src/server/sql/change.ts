import type { ArchivedChange } from '../../core/exchange/archive/archive-lines';
import type { PastChange } from '../../core/rules/evaluate/cell-past';
import type { Change, Operation } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { RecordedChange } from '../../protocol/recorded-change';
import type { HistoryQuery } from '../../protocol/sheet-history';
import type { Queryable } from '../database';

/** How the author of a change is kept whom only an archive knows. */
const ARCHIVED = 'archived ';

/** Adds changes that an archive kept to the log of a new sheet, one after another from a sequence. */
export async function appendArchived(
  sql: Queryable,
  sheet: SheetId,
  { first, changes }: { readonly first: number; readonly changes: readonly ArchivedChange[] },
): Promise<void> {
  const of = (column: (change: ArchivedChange) => string) => changes.map(column);
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, seen, operations, inverse, made_at)
    select ${sheet}, ${first - 1} + place, id, author, nullif(seen, '')::bigint, operations::json, inverse::json, made_at::timestamptz
    from unnest(
      ${of(({ id }) => id)}::text[], ${of(({ author }) => ARCHIVED + author)}::text[], ${of(({ seen }) => String(seen ?? ''))}::text[],
      ${of(({ operations }) => JSON.stringify(operations))}::text[], ${of(({ inverse }) => JSON.stringify(inverse))}::text[],
      ${of(({ at }) => new Date(at).toISOString())}::text[]
    ) with ordinality as kept (id, author, seen, operations, inverse, made_at, place)`;
}

export interface AppendedChange {
  readonly sheet: SheetId;
  readonly sequence: number;
  readonly author: string;
  /** The last change that its author had seen. */
  readonly seen?: number | undefined;
  readonly change: Change;
  readonly inverse: readonly Operation[];
}

/** Adds a change to the log. */
export async function appendChange(
  sql: Queryable,
  { sheet, sequence, author, seen, change, inverse }: AppendedChange,
): Promise<void> {
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, seen, operations, inverse)
    values (${sheet}, ${sequence}, ${change.id}, ${author}, ${seen ?? null}, ${JSON.stringify(change.operations)}::text::json, ${JSON.stringify(inverse)}::text::json)`;
}

/** The sequence of a change that was taken before, by the id its client made. */
export async function findChange(sql: Queryable, sheet: SheetId, changeId: string): Promise<number | undefined> {
  const [row] = await sql<
    { sequence: string }[]
  >`select sequence from sheet_change where sheet_id = ${sheet} and change_id = ${changeId}`;
  return row && Number(row.sequence);
}

/** The changes after a sequence as an archive keeps them, in order, up to a number. */
export async function readArchived(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { readonly after: number; readonly limit: number },
): Promise<ArchivedChange[]> {
  const rows = await sql<
    {
      change_id: string;
      author: string;
      seen: string | null;
      operations: Operation[];
      inverse: Operation[];
      made_at: Date;
    }[]
  >`
    select change_id, seen, operations, inverse, made_at,
      coalesce(author_name(change.sheet_id, change.author), 'somebody') as author
    from sheet_change change
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map(({ change_id, author, seen, operations, inverse, made_at }) => ({
    id: change_id,
    author,
    at: made_at.getTime(),
    ...(seen === null ? {} : { seen: Number(seen) }),
    operations,
    inverse,
  }));
}

/** The changes after a sequence, in order, up to a number. */
export async function readChangesAfter(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { after: number; limit: number },
): Promise<RecordedChange[]> {
  const rows = await sql<
    {
      sequence: string;
      change_id: string;
      operations: Operation[];
      made_at: Date;
      seen: string | null;
      name: string | null;
    }[]
  >`
    select sequence, change_id, operations, made_at, seen, author_name(change.sheet_id, change.author) as name from sheet_change change
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map((row) => ({
    sequence: Number(row.sequence),
    at: row.made_at.getTime(),
    change: { id: row.change_id, operations: row.operations },
    ...(row.seen === null ? {} : { seen: Number(row.seen) }),
    ...(row.name === null ? {} : { by: row.name }),
  }));
}

export interface LoggedChange {
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
}

/** The changes before a sequence with all that is in them, the newest first, up to a number. */
export async function readChangesBefore(
  sql: Queryable,
  sheet: SheetId,
  { before, limit }: { readonly before: number; readonly limit: number },
): Promise<LoggedChange[]> {
  const rows = await sql<{ sequence: string; made_at: Date; operations: Operation[]; inverse: Operation[] }[]>`
    select sequence, made_at, operations, inverse from sheet_change
    where sheet_id = ${sheet} and sequence < ${before} order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, operations, inverse }) => ({
    sequence: Number(sequence),
    at: made_at.getTime(),
    operations,
    inverse,
  }));
}

/** A change for the history: of many cells or rows only the first are there. */
export interface ToldChange {
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
  /** The name of who made it. */
  readonly author: string;
  /** As changes are signed: `person ID`, `visitor ID`, `program ID` or `archived NAME`. */
  readonly by: string;
  readonly operations: readonly Operation[];
  /** The inverse of those first ones. */
  readonly inverse: readonly Operation[];
  /** How many cells, rows and so on each of the operations was about. */
  readonly counts: readonly number[];
}

/** Cells and rows of one operation that are read. */
const MAX_ITEMS = 100;

/** Changes of the log, the newest first, up to a number. */
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
  // Cells and rows that were asked for come first then.
  const isWanted = sql`${field === undefined ? sql`true` : sql`item ->> 'field' = ${field}`} and ${row === undefined ? sql`true` : sql`item ->> 'row' = ${row}`}`;
  // The inverse goes back from the last one to the first.
  const cut = (steps: 'operations' | 'inverse') => sql`(
    select coalesce(json_agg(case when items is null then step else ((step::jsonb - 'cells' - 'rows') || jsonb_build_object(name, (
        select coalesce(jsonb_agg(item order by place), '[]') from (
          select item, place from jsonb_array_elements(items) with ordinality as each (item, place)
          where name = 'rows' or step ->> 'kind' <> 'set-cells' or (${isWanted})
          order by place ${steps === 'operations' ? sql`asc` : sql`desc`} limit ${MAX_ITEMS}) first_items)))::json end order by at), '[]')
    from json_array_elements(${sql(steps)}) with ordinality as all_steps (step, at),
      lateral (select case when step -> 'cells' is not null then 'cells' when step -> 'rows' is not null then 'rows' end as name) named,
      lateral (select (step::jsonb) -> name as items) listed)`;
  const rows = await sql<
    {
      sequence: string;
      made_at: Date;
      author: string;
      by: string;
      operations: Operation[];
      inverse: Operation[];
      counts: number[];
    }[]
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

interface LoggedPast extends PastChange {
  /** How many cells it sets. */
  readonly cells: number;
}

/** The contents that the changes before a sequence removed from cells, the newest first, up to a number. */
export async function readPastBefore(
  sql: Queryable,
  sheet: SheetId,
  { before, limit }: { before: number; limit: number },
): Promise<LoggedPast[]> {
  const rows = await sql<{ sequence: string; made_at: Date; inverse: Operation[]; cells: string }[]>`
    select sequence, made_at,
      jsonb_path_query_array(inverse::jsonb, '$[*] ? (@.kind == "set-cells" || @.kind == "remove-rows")') as inverse,
      (select coalesce(sum(jsonb_array_length(coalesce(step -> 'cells', step -> 'rows', '[]'))), 0)
        from jsonb_array_elements(inverse::jsonb) step where step ->> 'kind' in ('set-cells', 'remove-rows')) as cells
    from sheet_change where sheet_id = ${sheet} and sequence < ${before} order by sequence desc limit ${limit}`;
  return rows.map(({ sequence, made_at, inverse, cells }) => ({
    sequence: Number(sequence),
    at: made_at.getTime(),
    inverse,
    cells: Number(cells),
  }));
}
