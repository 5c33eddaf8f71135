import Joi from 'joi';
import { database } from '../../../server/database';
import { signUp, type NewAccount } from '../../../server/people/accounts';
import { keepSession } from '../cookies';
import { email, newPassword, personName } from '../person-schema';
import { readBody } from '../read-body';
import { respond } from '../respond';

const schema = Joi.object<NewAccount>({ email: email.required(), name: personName.required(), password: newPassword.required() });

export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    await keepSession(await signUp(database(), await readBody(request, schema)), request);
    return Response.json({}, { status: 201 });
  });
}
