import Joi from 'joi';
import { SHEET_ROLES, type SheetRole } from '../../../../../../../core/sharing/role';
import { database } from '../../../../../../../server/database';
import { changeMember } from '../../../../../../../server/sheets/share-sheet';
import { allow } from '../../../../../allow';
import { readBody } from '../../../../../read-body';
import { respond } from '../../../../../respond';

interface Context {
  readonly params: Promise<{ id: string; person: string }>;
}

const schema = Joi.object<{ role: SheetRole }>({ role: Joi.valid(...SHEET_ROLES).required() });

/** Gives a member another role. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    const { role } = await readBody(request, schema);
    await changeMember(database(), id, { person: (await params).person, role });
    return Response.json({ role });
  });
}

/** Takes a member's part in the sheet away. Everybody can leave by themselves. */
export function DELETE(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { person } = await params;
    const { id, access } = await allow(params, 'read');
    if (access.person?.id !== person) await allow(params, 'own');
    await changeMember(database(), id, { person, role: null });
    return new Response(null, { status: 204 });
  });
}
