import Joi from 'joi';
import { requirePermit } from '../../../../../../../server/access/permits';
import { SHEET_ROLES, type SheetRole } from '../../../../../../../core/sharing/role';
import { database } from '../../../../../../../server/database';
import { changeMember } from '../../../../../../../server/sheets/share-sheet';
import { sheetRoute } from '../../../../../route-declarations';

const schema = Joi.object<{ role: SheetRole }>({ role: Joi.valid(...SHEET_ROLES).required() });

/** Gives a member another role. */
export const PATCH = sheetRoute({ permit: 'own', body: schema }, async ({ id, body: { role }, param }) => {
  await changeMember(database(), id, { person: param('person'), role });
  return Response.json({ role });
});

/** Takes a member's part in the sheet away. Everybody can leave by themselves. */
export const DELETE = sheetRoute({ permit: 'read' }, async ({ id, access, param }) => {
  const person = param('person');
  if (access.person?.id !== person) requirePermit(access, 'own');
  await changeMember(database(), id, { person, role: null });
  return new Response(null, { status: 204 });
});
