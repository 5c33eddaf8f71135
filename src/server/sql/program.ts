import type { SheetId } from '../../core/sheet/ids';
import type { Scope, SheetProgram } from '../../protocol/programs/scopes';
import type { Queryable } from '../database';

export interface FoundProgram {
  readonly sheet: SheetId;
  readonly id: string;
  readonly name: string;
  readonly scopes: readonly Scope[];
}

const NOTED_MS = 5000;

/**
 * A program by its token, unless that was revoked, has ended, or its giver no longer owns the sheet; notes that it was
 * there, every few seconds.
 */
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

type Asker = Pick<FoundProgram, 'sheet' | 'id'>;

/** How long answers are kept. */
const KEPT = '24 hours';

/** The answer to a request with a key, and the hash of the request; undefined where there was none. */
export async function findAnswer(
  sql: Queryable,
  { sheet, id }: Asker,
  key: string,
): Promise<{ readonly asked: Buffer; readonly answer: object } | undefined> {
  const [row] = await sql<{ asked: Buffer; answer: object }[]>`
    select asked, answer from program_answer where sheet_id = ${sheet} and program_id = ${id} and key = ${key}`;
  return row;
}

/** Keeps an answer, and drops those that are old. */
export async function keepAnswer(
  sql: Queryable,
  { sheet, id }: Asker,
  { key, asked, answer }: { readonly key: string; readonly asked: Buffer; readonly answer: object },
): Promise<void> {
  await sql`delete from program_answer where sheet_id = ${sheet} and program_id = ${id} and at < now() - ${KEPT}::interval`;
  await sql`insert into program_answer (sheet_id, program_id, key, asked, answer)
    values (${sheet}, ${id}, ${key}, ${asked}, ${JSON.stringify(answer)}::text::json) on conflict do nothing`;
}

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

/** The programs of a sheet whose tokens are not revoked, the newest first. */
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

/** Takes a program's token back; false where there is none such. */
export async function revokeProgram(sql: Queryable, sheet: SheetId, id: string): Promise<boolean> {
  const { count } =
    await sql`update sheet_program set revoked_at = now() where sheet_id = ${sheet} and id = ${id} and revoked_at is null`;
  return count > 0;
}
