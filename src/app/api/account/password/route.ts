import Joi from 'joi';
import { database } from '../../../../server/database';
import { changePassword } from '../../../../server/people/accounts';
import { guesserOf, signInHere } from '../../cookies';
import { givenPassword, newPassword } from '../../person-schema';
import { SMALL_BODY } from '../../read-body';
import { personRoute } from '../../route-declarations';

const schema = Joi.object<{ old: string; password: string }>({
  old: givenPassword.required(),
  password: newPassword.required(),
});

/** Changes the password; every other session is over. */
export const POST = personRoute({ body: schema, most: SMALL_BODY }, async ({ person, body: given, request }) => {
  await changePassword(database(), person, { ...given, by: await guesserOf(request) });
  await signInHere(person.id, request);
  return Response.json({});
});
