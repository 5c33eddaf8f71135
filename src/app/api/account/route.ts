import Joi from 'joi';
import { database } from '../../../server/database';
import { updatePerson } from '../../../server/sql/person';
import { requirePerson } from '../allow';
import { personName } from '../person-schema';
import { readBody } from '../read-body';
import { respond } from '../respond';

const schema = Joi.object<{ name: string }>({ name: personName.required() });

/** Gives the account another name. */
export function PATCH(request: Request): Promise<Response> {
  return respond(async () => {
    const { id } = await requirePerson();
    const { name } = await readBody(request, schema);
    await updatePerson(database(), id, { name });
    return Response.json({ name });
  });
}
