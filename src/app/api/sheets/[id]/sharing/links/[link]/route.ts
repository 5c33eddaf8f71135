import Joi from 'joi';
import type { SheetId } from '../../../../../../../core/sheet/ids';
import { database, type Transaction } from '../../../../../../../server/database';
import { changeAccess } from '../../../../../../../server/access/change-access';
import { Refusal } from '../../../../../../../server/refusal';
import { endLink, revokeLink } from '../../../../../../../server/sql/link';
import { linkEnd } from '../../../../../link-end';
import { sheetRoute } from '../../../../../route-declarations';
import { refusalText } from '../../../../../../../texts/refusal-text';

const schema = Joi.object<{ endsAt: number | null }>({ endsAt: linkEnd.required() });

/** Gives the link another end. */
export const PATCH = sheetRoute({ permit: 'own', body: schema }, async ({ id, body: { endsAt }, param }) => {
  const end = endsAt === null ? null : new Date(endsAt);
  await changeLink(id, (tx) => endLink(tx, id, { id: param('link'), endsAt: end }));
  return Response.json({ endsAt });
});

/** Revokes the link: those who came by it lose access. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id, param }) => {
  await changeLink(id, (tx) => revokeLink(tx, id, param('link')));
  return new Response(null, { status: 204 });
});

const changeLink = (sheet: SheetId, change: (tx: Transaction) => Promise<boolean>): Promise<void> =>
  changeAccess(database(), async (tx) => {
    if (!(await change(tx))) throw new Refusal('bad-request', refusalText('linkHasAlreadyBeen'));
    return { changed: { sheet }, value: undefined };
  });
