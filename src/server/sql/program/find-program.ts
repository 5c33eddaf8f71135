import type { SheetId } from '../../../core/sheet/ids';
import type { Scope } from '../../../protocol/programs/scopes';
import type { Queryable } from '../../database';

export interface FoundProgram {
  readonly sheet: SheetId;
  readonly id: string;
  readonly name: string;
  readonly scopes: readonly Scope[];
}

const NOTED_MS = 5000;

/** A program by its token, unless that was taken back, has ended, or who gave it owns the sheet no more; notes that it was there, every few seconds. */
export async function findProgram(sql: Queryable, tokenHash: Buffer): Promise<FoundProgram | undefined> {
  const [row] = await sql<(FoundProgram & { readonly used_at: Date | null })[]>`
    select program.sheet_id as sheet, id, name, scopes, used_at from sheet_program program
    join sheet_member member on member.sheet_id = program.sheet_id and member.person_id = program.person_id and member.role = 'owner'
    where token_hash = ${tokenHash} and revoked_at is null and (ends_at is null or ends_at > now())`;
  if (!row) return undefined;
  const { used_at, ...program } = row;
  if (!used_at || Date.now() - used_at.getTime() > NOTED_MS)
    await sql`update sheet_program set used_at = now() where sheet_id = ${program.sheet} and id = ${program.id}`;
  return program;
}
