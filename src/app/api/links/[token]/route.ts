import Joi from 'joi';
import { database } from '../../../../server/database';
import { acceptInvitation, joinByLink } from '../../../../server/sheets/join-sheet';
import { requirePerson } from '../../allow';
import { keepVisit } from '../../cookies';
import { personName } from '../../person-schema';
import { readBody } from '../../read-body';
import { respond } from '../../respond';

const schema = Joi.object<{ name?: string }>({ name: personName });

/** Comes to a sheet by a link: with a name of one's own, or, without one, by taking up an invitation. */
export function POST(request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  return respond(async () => {
    const { token } = await params;
    const { name } = await readBody(request, schema);
    if (name === undefined) return Response.json({ sheet: await acceptInvitation(database(), token, await requirePerson()) });
    const { sheet, visit } = await joinByLink(database(), token, name);
    await keepVisit(sheet, visit, request);
    return Response.json({ sheet });
  });
}
