import type { SheetId } from '../../core/sheet/ids';
import type { Queryable } from '../database';

/** The first change that a sheet's log still has. */
export interface LogStart {
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
}

/** Whether the log of a sheet is this transaction's to shorten. Nobody waits for it, and nobody who writes. */
export async function takeLog(sql: Queryable, sheet: SheetId): Promise<boolean> {
  const [lock] = await sql<{ taken: boolean }[]>`
    select pg_try_advisory_xact_lock(hashtext('shorten log'), hashtext(${sheet})) as taken`;
  return lock?.taken === true;
}

/** The first change of a sheet's log; undefined where it has none. Earlier ones may have been removed. */
export async function findLogStart(sql: Queryable, sheet: SheetId): Promise<LogStart | undefined> {
  const [row] = await sql<{ sequence: string; made_at: Date }[]>`
    select sequence, made_at from sheet_change where sheet_id = ${sheet} order by sequence limit 1`;
  return row && { sequence: Number(row.sequence), at: row.made_at.getTime() };
}

/** Whether the log has all changes after a sequence, so that a sheet as it was then can go on from there. */
export async function hasLogAfter(sql: Queryable, sheet: SheetId, after: number): Promise<boolean> {
  const start = await findLogStart(sql, sheet);
  return start !== undefined && start.sequence <= after + 1;
}

/** Sheets after an id whose first change was made before a moment, in the order of their ids, up to a number. */
export async function sheetsWithOldLog(
  sql: Queryable,
  { before, after, limit }: { readonly before: Date; readonly after: SheetId; readonly limit: number },
): Promise<SheetId[]> {
  const rows = await sql<{ id: SheetId }[]>`
    select sheet.id from sheet, lateral (
      select made_at from sheet_change where sheet_id = sheet.id order by sequence limit 1) first
    where sheet.id > ${after} and first.made_at < ${before} order by sheet.id limit ${limit}`;
  return rows.map(({ id }) => id);
}

/**
 * Up to which change a sheet's log may be removed: those made before a moment, without the last change, and without any
 * whose findings are not known yet, or that a named version or a rule may go back to.
 */
export async function findRemovable(sql: Queryable, sheet: SheetId, before: Date): Promise<number> {
  const [row] = await sql<{ sequence: string }[]>`
    select least(
      sheet.head - 1,
      finding_head.sequence,
      (select sequence - 1 from sheet_change where sheet_id = sheet.id and made_at >= ${before} order by sequence limit 1),
      (select min((part ->> 'sequence')::bigint) from sheet_part where sheet_id = sheet.id and part ->> 'kind' = 'snapshot')
    ) as sequence
    from sheet join finding_head on finding_head.sheet_id = sheet.id where sheet.id = ${sheet}`;
  return row ? Number(row.sequence) : 0;
}

/** Removes the changes up to a sequence, and packed copies from before it, which could not go on any more. */
export async function removeLog(sql: Queryable, sheet: SheetId, upTo: number): Promise<number> {
  const { count } = await sql`delete from sheet_change where sheet_id = ${sheet} and sequence <= ${upTo}`;
  await sql`delete from packed_sheet where sheet_id = ${sheet} and sequence < ${upTo}`;
  await sql`delete from sheet_snapshot where sheet_id = ${sheet} and sequence < ${upTo}`;
  return count;
}
