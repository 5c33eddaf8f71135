import Joi from 'joi';
import { SCOPES, TOKEN_DAYS, type Scope } from '../../../../../protocol/programs/scopes';
import { database } from '../../../../../server/database';
import { giveToken } from '../../../../../server/programs/give-token';
import { readPrograms } from '../../../../../server/sql/program';
import { allow, requirePerson } from '../../../allow';
import { readBody } from '../../../read-body';
import { respond } from '../../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

const schema = Joi.object<{ name: string; scopes: readonly Scope[]; days: number }>({
  name: Joi.string().trim().min(1).max(80).required(),
  scopes: Joi.array()
    .items(Joi.valid(...Object.keys(SCOPES)))
    .unique()
    .min(1)
    .required(),
  days: Joi.valid(...TOKEN_DAYS).default(365),
});

export function GET(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    return Response.json(await readPrograms(database(), id));
  });
}

/** Adds a program; its token is shown once. */
export function POST(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    const { id: person } = await requirePerson();
    return Response.json(await giveToken(database(), id, { ...(await readBody(request, schema)), person }), {
      status: 201,
    });
  });
}
