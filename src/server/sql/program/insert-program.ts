import type { SheetId } from '../../../core/sheet/ids';
import type { Scope } from '../../../protocol/programs/scopes';
import type { Queryable } from '../../database';

interface NewProgram {
  readonly id: string;
  readonly tokenHash: Buffer;
  readonly name: string;
  readonly scopes: readonly Scope[];
  readonly isLogger?: boolean;
}

/** Keeps a program's token. */
export async function insertProgram(sql: Queryable, sheet: SheetId, { id, tokenHash, name, scopes, isLogger = false }: NewProgram): Promise<void> {
  await sql`insert into sheet_program (sheet_id, id, token_hash, name, scopes, is_logger)
    values (${sheet}, ${id}, ${tokenHash}, ${name}, ${[...scopes]}, ${isLogger})`;
}
