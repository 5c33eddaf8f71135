import Joi from 'joi';
import { ruleSetBody, type RuleSetBody } from '../../../../protocol/rule-sets';
import { database } from '../../../../server/database';
import { Refusal } from '../../../../server/refusal';
import { deleteRuleSet, updateRuleSet } from '../../../../server/sql/rule-set';
import { requirePerson } from '../../allow';
import { readBody } from '../../read-body';
import { respond } from '../../respond';

interface Context {
  readonly params: Promise<{ set: string }>;
}

const schema = Joi.object<{ body: RuleSetBody }>({ body: ruleSetBody.required() });
const NOT_YOURS = 'There is no such rule set of yours. Save the rules as a set of your own instead.';

/** Saves a new version of a rule set: sheets that use it learn of it. */
export function PUT(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: owner } = await requirePerson();
    const { body } = await readBody(request, schema);
    const version = await updateRuleSet(database(), { id: (await params).set, owner, body });
    if (version === undefined) throw new Refusal('bad-request', NOT_YOURS);
    return Response.json({ version });
  });
}

/** Removes a rule set. Sheets keep the rules that they have from it. */
export function DELETE(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: owner } = await requirePerson();
    if (!(await deleteRuleSet(database(), { id: (await params).set, owner })))
      throw new Refusal('bad-request', NOT_YOURS);
    return new Response(null, { status: 204 });
  });
}
