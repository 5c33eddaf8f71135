import Joi from 'joi';
import { SCOPES, TOKEN_DAYS, type Scope } from '../../../../../protocol/programs/scopes';
import { database } from '../../../../../server/database';
import { giveToken } from '../../../../../server/programs/give-token';
import { readPrograms } from '../../../../../server/sql/program';
import { sheetPersonRoute, sheetRoute } from '../../../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ name: string; scopes: readonly Scope[]; days: number }>({
  name: Joi.string().trim().min(1).max(80).required(),
  scopes: Joi.array()
    .items(Joi.valid(...Object.keys(SCOPES)))
    .unique()
    .min(1)
    .required(),
  days: Joi.valid(...TOKEN_DAYS).default(365),
});

export const GET = sheetRoute({ permit: 'own' }, async ({ id }) => {
  return Response.json(await readPrograms(database(), id));
});

/** Adds a program; its token is shown once. */
export const POST = sheetPersonRoute({ permit: 'own', body: schema }, async ({ id, person: { id: person }, body }) => {
  return Response.json(await giveToken(database(), id, { ...body, person }), {
    status: 201,
  });
});
