import Joi from 'joi';
import { database } from '../../../server/database';
import { signIn } from '../../../server/people/accounts';
import { keepSession } from '../cookies';
import { email, givenPassword } from '../person-schema';
import { readBody } from '../read-body';
import { respond } from '../respond';

const schema = Joi.object<{ email: string; password: string }>({ email: email.required(), password: givenPassword.required() });

export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    await keepSession(await signIn(database(), await readBody(request, schema)), request);
    return Response.json({});
  });
}
