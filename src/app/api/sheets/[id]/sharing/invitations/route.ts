import Joi from 'joi';
import { LINK_ROLES, type LinkRole } from '../../../../../../core/sharing/role';
import { database } from '../../../../../../server/database';
import { settings } from '../../../../../../server/settings';
import { invite } from '../../../../../../server/sheets/share-sheet';
import { email } from '../../../../person-schema';
import { sheetPersonRoute } from '../../../../route-declarations';

const schema = Joi.object<{ email: string; role: LinkRole }>({
  email: email.required(),
  role: Joi.valid(...LINK_ROLES).required(),
});

/** Invites somebody by mail, which is in the sender's outbox. */
export const POST = sheetPersonRoute({ permit: 'own', body: schema }, async ({ id, person: from, body: asked }) => {
  return Response.json(await invite(database(), id, { ...asked, from, origin: settings().publicUrl }), {
    status: 201,
  });
});
