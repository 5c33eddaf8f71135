import Joi from 'joi';
import { database } from '../../../../server/database';
import { changePassword } from '../../../../server/people/accounts';
import { requirePerson } from '../../allow';
import { guesserOf, signInHere } from '../../cookies';
import { givenPassword, newPassword } from '../../person-schema';
import { readBody, SMALL_BODY } from '../../read-body';
import { respond } from '../../respond';

const schema = Joi.object<{ old: string; password: string }>({
  old: givenPassword.required(),
  password: newPassword.required(),
});

/** Changes the password; every other session is over. */
export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const person = await requirePerson();
    const given = await readBody(request, schema, SMALL_BODY);
    await changePassword(database(), person, { ...given, by: await guesserOf(request) });
    await signInHere(person.id, request);
    return Response.json({});
  });
}
