import Joi from 'joi';
import { database } from '../../../server/database';
import { updatePerson } from '../../../server/sql/person';
import { personName } from '../person-schema';
import { personRoute } from '../route-declarations';

const schema = Joi.object<{ name: string }>({ name: personName.required() });

/** Gives the account another name. */
export const PATCH = personRoute({ body: schema }, async ({ person: { id }, body: { name } }) => {
  await updatePerson(database(), id, { name });
  return Response.json({ name });
});
