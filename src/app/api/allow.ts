import equal from 'fast-deep-equal';
import type { SheetId } from '../../core/sheet/ids';
import type { Served } from '../../server/access/access-channel';
import type { Access } from '../../server/access/access';
import { findAccess, findKnownAccess } from '../../server/access/find-access';
import { requirePermit, type Permit } from '../../server/access/permits';
import { database } from '../../server/database';
import { personOfToken } from '../../server/people/session';
import { Refusal } from '../../server/refusal';
import type { Person } from '../../server/sql/person';
import type { Asked } from '../../server/front/quick-routes';
import { sessionToken, tokensIn } from './cookies';
import { sheetOf } from './sheet-of';
import { refusalText } from '../../texts/refusal-text';

export interface Allowed {
  readonly id: SheetId;
  readonly access: Access;
  /** Whether they are the same to it by now: for what goes on for long. */
  readonly isStill: () => Promise<boolean>;
}

/**
 * Resolves the sheet of a route and the caller's access. Throws a Refusal where this is not allowed; without any access
 * the answer is the same as for a sheet that does not exist.
 */
export async function allow(request: Asked, named: string | undefined, permit: Permit): Promise<Allowed> {
  const id = sheetOf(named);
  const tokens = tokensIn(request, id);
  const access = await findKnownAccess(database(), id, tokens);
  if (!access) {
    if (!(await personOfToken(database(), tokens.session))) throw new Refusal('sign-in', refusalText('signOrUseLink'));
    throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  }
  requirePermit(access, permit);
  const isStill = async (): Promise<boolean> => {
    const now = await findAccess(database(), id, tokens);
    return now?.role === access.role && equal(now.own, access.own);
  };
  return { id, access, isStill };
}

/** The caller of a request on a sheet. */
export const servedOf = (sheet: SheetId, { author, person }: Access): Served => ({ sheet, author, person: person?.id });

/** The account that a request is made with. Throws a Refusal without one. */
export async function requirePerson(): Promise<Person> {
  const person = await personOfToken(database(), await sessionToken());
  if (!person) throw new Refusal('sign-in', refusalText('signContinue'));
  return person;
}
