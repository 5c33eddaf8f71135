import Joi from 'joi';
import { database } from '../../../server/database';
import { checkSignIn } from '../../../server/people/accounts';
import { guesserOf, signInHere } from '../cookies';
import { email, givenPassword } from '../person-schema';
import { readBody, SMALL_BODY } from '../read-body';
import { respond } from '../respond';

const schema = Joi.object<{ email: string; password: string }>({
  email: email.required(),
  password: givenPassword.required(),
});

export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const given = await readBody(request, schema, SMALL_BODY);
    const { id } = await checkSignIn(database(), given, await guesserOf(request));
    await signInHere(id, request);
    return Response.json({});
  });
}
