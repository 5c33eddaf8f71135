import Joi from 'joi';
import { LINK_ROLES, type LinkRole } from '../../../../../../core/sharing/role';
import { database } from '../../../../../../server/database';
import { settings } from '../../../../../../server/settings';
import { invite } from '../../../../../../server/sheets/share-sheet';
import { allow, requirePerson } from '../../../../allow';
import { email } from '../../../../person-schema';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';

const schema = Joi.object<{ email: string; role: LinkRole }>({
  email: email.required(),
  role: Joi.valid(...LINK_ROLES).required(),
});

/** Invites somebody by mail, which is in the sender's outbox. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    const from = await requirePerson();
    const asked = await readBody(request, schema);
    return Response.json(await invite(database(), id, { ...asked, from, origin: settings().publicUrl }), {
      status: 201,
    });
  });
}
