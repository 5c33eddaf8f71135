import Joi from 'joi';
import { database } from '../../../../server/database';
import { acceptInvitation, joinByLink } from '../../../../server/sheets/join-sheet';
import { requirePerson } from '../../allow';
import { countRequestOf } from '../../../../server/people/request-count';
import { guesserOf, keepVisit, visitHere } from '../../cookies';
import { personName } from '../../person-schema';
import { SMALL_BODY } from '../../read-body';
import { openRoute } from '../../route-declarations';

const schema = Joi.object<{ name?: string }>({ name: personName });

/** Joins a sheet by a link: with a name, or, for an invitation, by accepting it. */
export const POST = openRoute({ body: schema, most: SMALL_BODY }, async ({ body: { name }, param, request }) => {
  const token = param('token');
  if (name === undefined)
    return Response.json({ sheet: await acceptInvitation(database(), token, await requirePerson()) });
  await countRequestOf('join', (await guesserOf(request)).client);
  const { sheet, visit } = await joinByLink(database(), token, { name, visitOf: visitHere });
  await keepVisit(sheet, visit, request);
  return Response.json({ sheet });
});
