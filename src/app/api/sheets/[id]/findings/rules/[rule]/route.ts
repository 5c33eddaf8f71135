import Joi from 'joi';
import { database } from '../../../../../../../server/database';
import { muteRule } from '../../../../../../../server/sql/follow';
import { setImportant } from '../../../../../../../server/sql/finding';
import { allow, requirePerson } from '../../../../../allow';
import { readBody } from '../../../../../read-body';
import { respond } from '../../../../../respond';

const schema = Joi.object<{ isMuted?: boolean; isImportant?: boolean }>({
  isMuted: Joi.boolean().strict(),
  isImportant: Joi.boolean().strict(),
}).xor('isMuted', 'isImportant');

/** Mutes a rule for the caller, or marks it as important for everybody who works on the sheet. */
export function PATCH(
  request: Request,
  { params }: { params: Promise<{ id: string; rule: string }> },
): Promise<Response> {
  return respond(async () => {
    const { id: sheet } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const { rule } = await params;
    const { isMuted, isImportant } = await readBody(request, schema);
    if (isMuted !== undefined) await muteRule(database(), { sheet, person }, { rule, isMuted });
    if (isImportant !== undefined) await setImportant(database(), sheet, { rule, isImportant });
    return new Response(null, { status: 204 });
  });
}
