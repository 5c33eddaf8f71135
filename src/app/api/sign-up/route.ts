import Joi from 'joi';
import { database } from '../../../server/database';
import { signUp, type NewAccount } from '../../../server/people/accounts';
import { countRequestOf } from '../../../server/people/request-count';
import { guesserOf } from '../cookies';
import { email, newPassword, personName } from '../person-schema';
import { SMALL_BODY } from '../read-body';
import { openRoute } from '../route-declarations';

const schema = Joi.object<NewAccount>({
  email: email.required(),
  name: personName.required(),
  password: newPassword.required(),
  invitation: Joi.string().max(100),
});

/** Makes an account, to sign in to. The answer is the same where the address has one already. */
export const POST = openRoute({ body: schema, most: SMALL_BODY }, async ({ body: given, request }) => {
  await countRequestOf('sign-up', (await guesserOf(request)).client);
  await signUp(database(), given);
  return Response.json({}, { status: 201 });
});
