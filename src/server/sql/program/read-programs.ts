import type { SheetId } from '../../../core/sheet/ids';
import type { SheetProgram } from '../../../protocol/programs/scopes';
import type { Queryable } from '../../database';

/** The programs of a sheet whose tokens were not taken back, the newest first. */
export async function readPrograms(sql: Queryable, sheet: SheetId): Promise<SheetProgram[]> {
  const rows = await sql<
    (Omit<SheetProgram, 'createdAt' | 'endsAt' | 'usedAt'> & {
      readonly created_at: Date;
      readonly ends_at: Date | null;
      readonly used_at: Date | null;
    })[]
  >`
    select id, name, scopes, created_at, ends_at, used_at from sheet_program
    where sheet_id = ${sheet} and revoked_at is null order by created_at desc, id`;
  return rows.map(({ created_at, ends_at, used_at, ...rest }) => ({
    ...rest,
    createdAt: created_at.getTime(),
    endsAt: ends_at?.getTime() ?? null,
    usedAt: used_at?.getTime() ?? null,
  }));
}
