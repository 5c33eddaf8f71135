import { OWN_ALL, strongerRole, type Own, type SheetRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { personOfToken } from '../people/session';
import { hashToken } from '../people/token';
import { noteLinkUse } from '../sql/link';
import { findRole } from '../sql/member';
import type { Person } from '../sql/person';
import { findVisitor } from '../sql/visitor';

/** The tokens that a request carries. */
export interface Tokens {
  readonly session: string | undefined;
  /** Of a visit to the sheet in question. */
  readonly visit: string | undefined;
}

/** The access of a person to a sheet. */
export interface Access {
  readonly role: SheetRole;
  readonly own: Own;
  /** How changes are signed: `person ID` or `visitor ID`. */
  readonly author: string;
  readonly name: string;
  /** The account, where they are signed in. */
  readonly person: Person | undefined;
}

/** The effective access of a session and a link token; the stronger role wins. Undefined: no access. */
export async function findAccess(sql: Sql, sheet: SheetId, { session, visit }: Tokens): Promise<Access | undefined> {
  const person = await personOfToken(sql, session);
  const role = person && (await findRole(sql, sheet, person.id));
  const visitor = visit === undefined ? undefined : await findVisitor(sql, sheet, hashToken(visit));
  if (visitor) await noteLinkUse(sql, sheet, visitor.link);
  if (visitor && (role === undefined || (role !== visitor.role && strongerRole(role, visitor.role) === visitor.role)))
    return { role: visitor.role, own: visitor.own, author: `visitor ${visitor.id}`, name: visitor.name, person };
  return person && role && { role, own: OWN_ALL, author: `person ${person.id}`, name: person.name, person };
}
