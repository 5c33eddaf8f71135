import Joi from 'joi';
import { database } from '../../../../server/database';
import { changePassword } from '../../../../server/people/accounts';
import { requirePerson } from '../../allow';
import { keepSession } from '../../cookies';
import { givenPassword, newPassword } from '../../person-schema';
import { readBody } from '../../read-body';
import { respond } from '../../respond';

const schema = Joi.object<{ old: string; password: string }>({ old: givenPassword.required(), password: newPassword.required() });

/** Changes the password; every other session is over. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const person = await requirePerson();
    await keepSession(await changePassword(database(), person, await readBody(request, schema)), request);
    return Response.json({});
  });
}
