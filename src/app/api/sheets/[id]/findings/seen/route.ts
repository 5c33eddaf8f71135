import Joi from 'joi';
import { database } from '../../../../../../server/database';
import { seeAll, seeOne } from '../../../../../../server/sql/follow';
import { allow, requirePerson } from '../../../../allow';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';

const schema = Joi.object<{ finding?: number; rule?: string; all?: true }>({
  finding: Joi.number().strict().integer().min(1),
  rule: Joi.string().max(100),
  all: Joi.valid(true),
}).xor('finding', 'rule', 'all');

/** Marks one finding as seen, all of a rule, or all of the sheet. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return respond(async () => {
    const { id: sheet } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const { finding, rule } = await readBody(request, schema);
    if (finding !== undefined) await seeOne(database(), { sheet, person }, finding);
    else await seeAll(database(), { sheet, person }, rule);
    return new Response(null, { status: 204 });
  });
}
