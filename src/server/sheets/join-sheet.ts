import { nanoid } from 'nanoid';
import { fillingOf, keptFields, OpenCells } from '../../core/sharing/filling';
import { OWN_ALL, strongerRole, type Own, isFiller } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import { changeAccess } from '../access/change-access';
import type { Sql, Transaction } from '../database';
import { hashToken, newToken } from '../people/token';
import { Refusal } from '../refusal';
import { readFields } from '../sql/field';
import { findLink, revokeLink, noteLinkUse, type FoundLink } from '../sql/link';
import { findRole, putMember } from '../sql/member';
import { readParts } from '../sql/part';
import type { Person } from '../sql/person';
import { readRowPlaces } from '../sql/row';
import { readRules } from '../sql/rule';
import { lockHead } from '../sql/sheet';
import { findVisitor, insertVisitor, readOwn } from '../sql/visitor';
import { refusalText } from '../../texts/refusal-text';

/** The words for a link that is not valid, whatever the reason. */
export const NO_LINK = refusalText('linkNotValidMay');

interface Joining {
  readonly name: string;
  /** The token of a visit to a sheet that the browser has already. */
  readonly visitOf?: (sheet: SheetId) => Promise<string | undefined>;
}

/**
 * Joins a sheet by a link with a name. The token goes into a cookie. A browser that came by the same link before keeps
 * its place. Throws a Refusal where the link is not valid.
 */
export async function joinByLink(
  sql: Sql,
  token: string,
  { name, visitOf = () => Promise.resolve(undefined) }: Joining,
): Promise<{ readonly sheet: SheetId; readonly visit: string }> {
  return sql.begin(async (tx) => {
    const link = await linkOf(tx, token);
    if (link.invites !== null) throw new Refusal('sign-in', refusalText('invitationSignOrCreate'));
    // Those who come at the same moment get different places.
    await lockHead(tx, link.sheet);
    const had = await visitOf(link.sheet);
    if (had !== undefined && (await findVisitor(tx, link.sheet, hashToken(had)))?.link === link.id)
      return { sheet: link.sheet, visit: had };
    const visit = newToken();
    await insertVisitor(tx, link.sheet, {
      id: nanoid(12),
      link: link.id,
      tokenHash: hashToken(visit),
      name,
      own: await ownBy(tx, link),
    });
    await noteLinkUse(tx, link.sheet, link.id);
    return { sheet: link.sheet, visit };
  });
}

/** Takes an invitation up: the person has its role from now on, unless theirs is stronger, and the link is gone. */
export async function acceptInvitation(sql: Sql, token: string, person: Person): Promise<SheetId> {
  return changeAccess(sql, async (tx) => {
    const link = await linkOf(tx, token);
    if (link.invites === null) throw new Refusal('bad-request', refusalText('linkNotInvitationOpen'));
    if (link.invites.toLowerCase() !== person.email.toLowerCase())
      throw new Refusal('not-allowed', refusalText('invitationWasSentAnother'));
    if (!(await revokeLink(tx, link.sheet, link.id))) throw new Refusal('no-sheet', NO_LINK);
    const had = await findRole(tx, link.sheet, person.id);
    await putMember(tx, link.sheet, { person: person.id, role: had ? strongerRole(had, link.role) : link.role });
    return { changed: { sheet: link.sheet }, value: link.sheet };
  });
}

async function linkOf(tx: Transaction, token: string): Promise<FoundLink> {
  const link = await findLink(tx, hashToken(token));
  if (!link) throw new Refusal('no-sheet', NO_LINK);
  return link;
}

async function ownBy(tx: Transaction, { sheet, role, gives }: FoundLink): Promise<Own> {
  if (!isFiller(role) || gives.kind === 'all') return OWN_ALL;
  if (gives.kind === 'fields') return { fields: gives.fields, rows: null };
  if (gives.kind === 'rows') return { fields: null, rows: gives.rows };
  const fields = await readFields(tx, sheet);
  const filling = fillingOf(await readParts(tx, sheet));
  const rules = (await readRules(tx, sheet)).map(({ rule }) => rule);
  const open = new OpenCells(filling, keptFields(filling, rules, fields));
  const taken = await readOwn(tx, sheet);
  if (gives.kind === 'next-field') {
    const has = new Set(taken.flatMap((own) => own.fields ?? []));
    const free = fields.find(({ id }) => open.isOpenField(id) && !has.has(id));
    if (free) return { fields: [free.id], rows: null };
  } else {
    const has = new Set(taken.flatMap((own) => own.rows ?? []));
    const free = (await readRowPlaces(tx, sheet)).find(
      ({ id, role: kind }) =>
        !has.has(id) && fields.some((field) => open.isOpen({ row: id, role: kind, field: field.id })),
    );
    if (free) return { fields: null, rows: [free.id] };
  }
  throw new Refusal('not-allowed', refusalText('allPlacesSheetTaken'));
}
