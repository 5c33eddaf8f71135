import { nanoid } from 'nanoid';
import type { SheetId } from '../../core/sheet/ids';
import type { MadeProgram, Scope } from '../../protocol/programs/scopes';
import type { Sql } from '../database';
import { hashToken, newToken } from '../people/token';
import { insertProgram } from '../sql/program';

/** The prefix of a program's token, so that it is recognised where it turns up. */
const BEGIN = 'auxesis_';

export interface AskedProgram {
  readonly name: string;
  readonly scopes: readonly Scope[];
  /** The owner of the sheet who gives it: it ends with their right. */
  readonly person: string;
  /** Days for which it is good. */
  readonly days: number;
  readonly isLogger?: boolean;
}

/** Adds a program with a token of its own, which is returned once. */
export async function giveToken(
  sql: Sql,
  sheet: SheetId,
  { name, scopes, person, days, isLogger = false }: AskedProgram,
): Promise<MadeProgram> {
  const [id, token] = [nanoid(12), BEGIN + newToken()];
  const endsAt = new Date(Date.now() + days * 86_400_000);
  await insertProgram(sql, sheet, { id, tokenHash: hashToken(token), name, scopes, person, endsAt, isLogger });
  return { id, name, scopes, createdAt: Date.now(), endsAt: endsAt.getTime(), usedAt: null, token };
}
