import type { SheetId } from '../../../core/sheet/ids';
import type { Scope } from '../../../protocol/programs/scopes';
import type { Queryable } from '../../database';

interface NewProgram {
  readonly id: string;
  readonly tokenHash: Buffer;
  readonly name: string;
  readonly scopes: readonly Scope[];
  readonly person: string;
  readonly endsAt: Date;
  readonly isLogger: boolean;
}

/** Keeps a program's token. */
export async function insertProgram(sql: Queryable, sheet: SheetId, program: NewProgram): Promise<void> {
  const { id, tokenHash, name, scopes, person, endsAt, isLogger } = program;
  await sql`insert into sheet_program (sheet_id, id, token_hash, name, scopes, person_id, ends_at, is_logger)
    values (${sheet}, ${id}, ${tokenHash}, ${name}, ${[...scopes]}, ${person}, ${endsAt}, ${isLogger})`;
}
