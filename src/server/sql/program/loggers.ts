import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** A logger that has not been heard for so long is gone with its process. */
const SILENT = '20 seconds';

/** Whether a logger is on for a sheet: its token is good, and it was heard lately. */
export async function hasLogger(sql: Queryable, sheet: SheetId): Promise<boolean> {
  const rows = await sql`select from sheet_program
    where sheet_id = ${sheet} and is_logger and revoked_at is null and greatest(created_at, used_at) > now() - ${SILENT}::interval`;
  return rows.length > 0;
}

/** Takes the tokens of loggers back, of one sheet or of all: they end by themselves then. */
export async function endLoggers(sql: Queryable, sheet?: SheetId): Promise<void> {
  await sql`update sheet_program set revoked_at = now()
    where is_logger and revoked_at is null and (${sheet ?? null}::text is null or sheet_id = ${sheet ?? null})`;
}
