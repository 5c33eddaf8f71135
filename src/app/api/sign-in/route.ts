import Joi from 'joi';
import { database } from '../../../server/database';
import { checkSignIn } from '../../../server/people/accounts';
import { guesserOf, signInHere } from '../cookies';
import { email, givenPassword } from '../person-schema';
import { SMALL_BODY } from '../read-body';
import { openRoute } from '../route-declarations';

const schema = Joi.object<{ email: string; password: string }>({
  email: email.required(),
  password: givenPassword.required(),
});

export const POST = openRoute({ body: schema, most: SMALL_BODY }, async ({ body: given, request }) => {
  const { id } = await checkSignIn(database(), given, await guesserOf(request));
  await signInHere(id, request);
  return Response.json({});
});
