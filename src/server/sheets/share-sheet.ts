import { nanoid } from 'nanoid';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import { isFiller, isOwner, type SheetRole, type LinkRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { LinkGives, MadeLink, SheetSharing } from '../../protocol/sheet-sharing';
import { changeAccess } from '../access/change-access';
import type { Sql } from '../database';
import { hashToken, newToken } from '../people/token';
import { Refusal } from '../refusal';
import { insertLink, readLinks } from '../sql/link';
import { insertMail } from '../sql/mail';
import { deleteMember, putMember, readMembers } from '../sql/member';
import type { Person } from '../sql/person';
import { findSheet, lockHead } from '../sql/sheet';
import { keepingOperations } from './keep-from-fillers';
import type { Author } from './made-change';
import { takeChange } from './take-change';
import { refusalText } from '../../texts/refusal-text';

/** A link as it is asked for. */
export interface AskedLink {
  readonly role: LinkRole;
  readonly name: string;
  readonly gives: LinkGives;
  readonly endsAt: Date | null;
}

/** Who has a sheet, and by which links. */
export const readSharing = async (sql: Sql, sheet: SheetId): Promise<SheetSharing> => ({
  members: await readMembers(sql, sheet),
  links: await readLinks(sql, sheet),
});

/** Makes links. Their addresses are not stored, so they are returned only here. */
export async function makeLinks(
  sql: Sql,
  sheet: SheetId,
  { by, asked }: { readonly by: Author; readonly asked: readonly AskedLink[] },
): Promise<MadeLink[]> {
  const keeping = asked.some(({ role }) => isFiller(role)) ? await keepingOperations(sql, sheet, 'to-come') : [];
  if (keeping.length) await takeChange(sql, { sheet, by, change: { id: nanoid(), operations: keeping } });
  return sql.begin(async (tx) => {
    const made: MadeLink[] = [];
    for (const link of asked) {
      const [id, token] = [nanoid(12), newToken()];
      await insertLink(tx, sheet, { ...link, id, tokenHash: hashToken(token), invites: null });
      made.push({ id, name: link.name, path: linkPath(token) });
    }
    return made;
  });
}

const linkPath = (token: string): string => `/links/${token}`;

export interface AskedInvitation {
  readonly from: Person;
  readonly email: string;
  readonly role: LinkRole;
  /** Where the app is, such as http://127.0.0.1:4380. */
  readonly origin: string;
}

/** Days for which an invitation can be taken up. */
const INVITATION_DAYS = 14;

/** Invites somebody to an account of theirs: writes a mail with a link that works once. */
export async function invite(
  sql: Sql,
  sheet: SheetId,
  { from, email, role, origin }: AskedInvitation,
): Promise<MadeLink> {
  const [id, token] = [nanoid(12), newToken()];
  const path = linkPath(token);
  await sql.begin(async (tx) => {
    const found = await findSheet(tx, sheet);
    if (!found) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    const endsAt = new Date(Date.now() + INVITATION_DAYS * 86_400_000);
    await insertLink(tx, sheet, {
      id,
      tokenHash: hashToken(token),
      role,
      name: email,
      gives: { kind: 'all' },
      invites: email,
      endsAt,
    });
    const body = `${from.name} would like you to have “${found.name}” as ${LINK_ROLE_WORDS[role].noun}.\n\nOpen this address within ${INVITATION_DAYS} days, and sign in or make an account with this address:\n${origin}/links/… (the rest was shown when the invitation was made, and is not kept)\n\nIt works once.`;
    await insertMail(tx, {
      sender: from.id,
      recipient: email,
      subject: `${from.name} shares “${found.name}” with you`,
      body,
    });
  });
  return { id, name: email, path };
}

/** Gives a member another role, or none. Throws a Refusal where nobody would own the sheet then. */
export async function changeMember(
  sql: Sql,
  sheet: SheetId,
  { person, role }: { readonly person: string; readonly role: SheetRole | null },
): Promise<void> {
  await changeAccess(sql, async (tx) => {
    // One at a time, so that two owners cannot each remove the other.
    await lockHead(tx, sheet);
    const members = await readMembers(tx, sheet);
    if (!members.some(({ id }) => id === person)) throw new Refusal('bad-request', refusalText('personNoLongerSheet'));
    const staysOwner = role !== null && isOwner(role);
    if (!staysOwner && members.every(({ id, role: other }) => id === person || !isOwner(other)))
      throw new Refusal('bad-request', refusalText('sheetKeepsLeastOneOwner'));
    if (role === null) await deleteMember(tx, sheet, person);
    else await putMember(tx, sheet, { person, role });
    return { changed: { sheet }, value: undefined };
  });
}
