import type { ArchivedChange } from '../../core/exchange/archive/archive-lines';
import type { PastChange } from '../../core/rules/evaluate/cell-past';
import type { Change, Operation, StoredRow } from '../../core/sheet/change';
import type { RowId, SheetId } from '../../core/sheet/ids';
import { lastItem } from '../../core/values/item-at';
import type { RecordedChange } from '../../protocol/recorded-change';
import type { HistoryQuery } from '../../protocol/sheet-history';
import type { Queryable } from '../database';
import { plainRow, rowColumns, type RowRow } from './row';

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

/** The channel of taken changes, to every process: "sheet-id sequence". */
export const CHANGE_CHANNEL = 'sheet_change';

/** A change as it goes into the log. */
export interface LoggedChange {
  readonly sequence: number;
  readonly author: string;
  /** The last change that its author had seen. */
  readonly seen?: number | undefined;
  readonly change: Change;
  readonly inverse: readonly Operation[];
}

/** Changes of one sheet on their way into the database. */
export interface WrittenChanges {
  readonly sheet: SheetId;
  /** The last change before them. */
  readonly head: number;
  /** The id of that change, where it must be that one. */
  readonly lastId: string | null;
  /** Rows as they are after them, where they are there. */
  readonly rows: readonly StoredRow[];
  /** In their order, at least one. */
  readonly log: readonly LoggedChange[];
}

/**
 * Adds changes to the logs of sheets, writes rows, moves the sheets' heads, and notifies every process, in one
 * statement. Gives the sheets of which all was done; nothing is done of those whose last change is another by now, or
 * that are locked by somebody else (migrations/0014_write_changes.sql).
 */
export async function writeChanges(sql: Queryable, written: readonly WrittenChanges[]): Promise<ReadonlySet<SheetId>> {
  const log = written.flatMap((each) => each.log.map((logged) => ({ ...logged, sheet: each.sheet })));
  const { ids, keys, roles, cells, abouts } = rowColumns(written.flatMap(({ rows }) => rows));
  const done = await sql<{ id: SheetId }[]>`select id from write_changes(
    ${written.map(({ sheet }) => sheet)}, ${written.map(({ head }) => head)},
    ${written.map((each) => lastItem(each.log).sequence)}, ${written.map(({ lastId }) => lastId)},
    ${log.map(({ sheet }) => sheet)}, ${log.map(({ sequence }) => sequence)}, ${log.map(({ change }) => change.id)},
    ${log.map(({ author }) => author)}, ${log.map(({ seen }) => seen ?? null)},
    ${log.map(({ change }) => JSON.stringify(change.operations))}, ${log.map(({ inverse }) => JSON.stringify(inverse))},
    ${written.flatMap(({ sheet, rows }) => rows.map(() => sheet))}, ${ids}, ${keys}, ${roles}, ${cells}, ${abouts}
  ) as id`;
  return new Set(done.map(({ id }) => id));
}

interface SheetMoment {
  readonly head: number;
  /** The id of the last change; null for a sheet that was never changed. */
  readonly lastId: string | null;
  readonly rows: readonly StoredRow[];
}

/** The head of a sheet and those of some rows that exist, as they are at one moment. */
export async function findMoment(
  sql: Queryable,
  sheet: SheetId,
  rows: readonly RowId[],
): Promise<SheetMoment | undefined> {
  const [found] = await sql<{ head: string; last_id: string | null; rows: readonly RowRow[] }[]>`
    select head, (select change_id from sheet_change where sheet_id = sheet.id and sequence = head) as last_id, (
      select coalesce(json_agg(json_build_object('id', id, 'key', key, 'role', role, 'cells', cells, 'about', about)), '[]')
      from sheet_row where sheet_id = ${sheet} and id = any(${[...rows]}::text[])) as rows
    from sheet where id = ${sheet}`;
  return found && { head: Number(found.head), lastId: found.last_id, rows: found.rows.map(plainRow) };
}

/** The sequences of those of some changes that were taken before, by the ids that their clients made. */
export async function findChanges(
  sql: Queryable,
  sheet: SheetId,
  changeIds: readonly string[],
): Promise<Map<string, number>> {
  const rows = await sql<
    { change_id: string; sequence: string }[]
  >`select change_id, sequence from sheet_change where sheet_id = ${sheet} and change_id = any(${[...changeIds]}::text[])`;
  return new Map(rows.map(({ change_id, sequence }) => [change_id, Number(sequence)]));
}

interface SequencedChange {
  readonly sequence: number;
  readonly change: ArchivedChange;
}

/** The changes after a sequence as an archive keeps them, in order, up to a number. */
export async function readArchived(
  sql: Queryable,
  sheet: SheetId,
  { after, limit }: { readonly after: number; readonly limit: number },
): Promise<SequencedChange[]> {
  const rows = await sql<
    {
      sequence: string;
      change_id: string;
      author: string;
      seen: string | null;
      operations: Operation[];
      inverse: Operation[];
      made_at: Date;
    }[]
  >`
    select sequence, change_id, seen, operations, inverse, made_at,
      coalesce(author_name(change.sheet_id, change.author), 'somebody') as author
    from sheet_change change
    where change.sheet_id = ${sheet} and sequence > ${after} order by sequence limit ${limit}`;
  return rows.map(({ sequence, change_id, author, seen, operations, inverse, made_at }) => ({
    sequence: Number(sequence),
    change: {
      id: change_id,
      author,
      at: made_at.getTime(),
      ...(seen === null ? {} : { seen: Number(seen) }),
      operations,
      inverse,
    },
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

export interface PastChangeOfLog {
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
): Promise<PastChangeOfLog[]> {
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
