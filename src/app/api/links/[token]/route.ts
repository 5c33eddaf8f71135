import Joi from 'joi';
import { database } from '../../../../server/database';
import { acceptInvitation, joinByLink } from '../../../../server/sheets/join-sheet';
import { requirePerson } from '../../allow';
import { countRequestOf } from '../../../../server/people/request-count';
import { guesserOf, keepVisit, visitHere } from '../../cookies';
import { personName } from '../../person-schema';
import { readBody, SMALL_BODY } from '../../read-body';
import { respond } from '../../respond';

const schema = Joi.object<{ name?: string }>({ name: personName });

/** Joins a sheet by a link: with a name, or, for an invitation, by accepting it. */
export function POST(request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  return respond(async () => {
    const { token } = await params;
    const { name } = await readBody(request, schema, SMALL_BODY);
    if (name === undefined)
      return Response.json({ sheet: await acceptInvitation(database(), token, await requirePerson()) });
    await countRequestOf('join', (await guesserOf(request)).client);
    const { sheet, visit } = await joinByLink(database(), token, { name, visitOf: visitHere });
    await keepVisit(sheet, visit, request);
    return Response.json({ sheet });
  });
}
