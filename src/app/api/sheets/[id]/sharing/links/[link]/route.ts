import Joi from 'joi';
import type { SheetId } from '../../../../../../../core/sheet/ids';
import { database } from '../../../../../../../server/database';
import { tellAccessChanged } from '../../../../../../../server/access/access-channel';
import { Refusal } from '../../../../../../../server/refusal';
import { endLink, revokeLink } from '../../../../../../../server/sql/link';
import { linkEnd } from '../../../../../link-end';
import { sheetRoute } from '../../../../../route-declarations';
import { refusalText } from '../../../../../../../texts/refusal-text';

const schema = Joi.object<{ endsAt: number | null }>({ endsAt: linkEnd.required() });

/** Gives the link another end. */
export const PATCH = sheetRoute({ permit: 'own', body: schema }, async ({ id, body: { endsAt }, param }) => {
  await had(id, endLink(database(), id, { id: param('link'), endsAt: endsAt === null ? null : new Date(endsAt) }));
  return Response.json({ endsAt });
});

/** Revokes the link: those who came by it lose access. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id, param }) => {
  await had(id, revokeLink(database(), id, param('link')));
  return new Response(null, { status: 204 });
});

async function had(sheet: SheetId, changed: Promise<boolean>): Promise<void> {
  if (!(await changed)) throw new Refusal('bad-request', refusalText('linkHasAlreadyBeen'));
  await tellAccessChanged(database(), { sheet });
}
