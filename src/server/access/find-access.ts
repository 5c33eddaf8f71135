import { hash } from 'node:crypto';
import { OWN_ALL, strongerRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { personOfToken } from '../people/session';
import { hashToken } from '../people/token';
import { noteLinkUse } from '../sql/link';
import { findRole } from '../sql/member';
import { findVisitor } from '../sql/visitor';
import type { Access, FoundAccess } from './access';
import { knownAccess } from './known-access';

/** The tokens that a request carries. */
export interface Tokens {
  readonly session: string | undefined;
  /** Of a visit to the sheet in question. */
  readonly visit: string | undefined;
}

/** The effective access of a session and a link token; the stronger role wins. Undefined: no access. */
export const findAccess = async (sql: Sql, sheet: SheetId, tokens: Tokens): Promise<Access | undefined> =>
  (await findLastingAccess(sql, sheet, tokens))?.access;

/** The access of a caller, as far as possible without asking the database: for requests of which there are many. */
export async function findKnownAccess(sql: Sql, sheet: SheetId, tokens: Tokens): Promise<Access | undefined> {
  // Who reads the memory of the process must not find tokens there.
  const key = hash('sha256', JSON.stringify([sheet, tokens.session, tokens.visit]), 'base64');
  return (await knownAccess().get(key, sheet, () => findLastingAccess(sql, sheet, tokens)))?.access;
}

/** The access, and its end. */
async function findLastingAccess(
  sql: Sql,
  sheet: SheetId,
  { session, visit }: Tokens,
): Promise<FoundAccess | undefined> {
  const person = await personOfToken(sql, session);
  const role = person && (await findRole(sql, sheet, person.id));
  const visitor = visit === undefined ? undefined : await findVisitor(sql, sheet, hashToken(visit));
  if (visitor) await noteLinkUse(sql, sheet, visitor.link);
  if (visitor && (role === undefined || (role !== visitor.role && strongerRole(role, visitor.role) === visitor.role)))
    return {
      access: { role: visitor.role, own: visitor.own, author: `visitor ${visitor.id}`, name: visitor.name, person },
      endsAt: visitor.endsAt,
    };
  return (
    person &&
    role && { access: { role, own: OWN_ALL, author: `person ${person.id}`, name: person.name, person }, endsAt: null }
  );
}
